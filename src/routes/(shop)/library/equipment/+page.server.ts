import { fail } from '@sveltejs/kit';
import { TARGETS } from '$lib/case/entries/returns-told/payload';
import { shopFunctions } from '$library/calibrations';
import { maySign } from '$lib/server/accounts/members';
import { serialDevices } from '$lib/link/adapterPort';
import { memberHere } from '$lib/server/cases/access';
import { notAllowed, parseLinkRule } from '$lib/server/cases/linkRules';

const MOST_RULES = 50;

export const load = async ({ locals }) => {
	const { settings } = locals.services;
	const linkRules = await settings.read('linkRules');
	const mayChange = locals.member !== null && maySign(locals.member);
	const owned = new Set(await settings.read('equipment'));
	return {
		targets: TARGETS,
		target: await settings.read('residualTarget'),
		signOwnRepair: await settings.read('signOwnRepair'),
		linkRules,
		pluggedIn: mayChange ? notAllowed(linkRules, await serialDevices()) : [],
		functions: [...shopFunctions.values()].map((one) => ({ ...one, owned: owned.has(one.id) })),
		mayChange
	};
};

export const actions = {
	save: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const owned = form.getAll('owned').map(String);
		const unknown = owned.find((id) => !shopFunctions.has(id));
		if (unknown !== undefined) return fail(400, { error: `There is no function "${unknown}".` });
		await event.locals.services.settings.write('equipment', owned, member);
		return { saved: true };
	},
	links: async (event) => {
		const member = memberHere(event);
		const text = String((await event.request.formData()).get('rules') ?? '');
		const rules = text
			.split('\n')
			.map((line) => line.trim())
			.filter(Boolean);
		const wrong = rules.map((rule) => ({ rule, read: parseLinkRule(rule) })).find(({ read }) => !read.ok);
		if (wrong && !wrong.read.ok)
			return fail(400, { linksError: `${wrong.rule}: ${wrong.read.error}.`, rules: text });
		if (rules.length > MOST_RULES)
			return fail(400, { linksError: `At most ${MOST_RULES} lines.`, rules: text });
		await event.locals.services.settings.write('linkRules', rules, member);
		return { linksSaved: true };
	},
	proof: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const target = TARGETS.find((one) => String(one) === form.get('target'));
		if (target === undefined) return fail(400, { proofError: 'Choose 10, 5 or 1 %.' });
		const { settings } = event.locals.services;
		await settings.write('residualTarget', target, member);
		await settings.write('signOwnRepair', form.get('own') === 'on', member);
		return { proofSaved: true };
	}
};
