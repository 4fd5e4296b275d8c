import { fail } from '@sveltejs/kit';
import { placeWords } from '$lib/case/reason/words';
import { inseparable } from '$lib/core/path/separable';
import { mayEditCodes } from '$lib/server/accounts/members';
import { memberHere } from '$lib/server/cases/access';
import { ReasonBook } from '$library/reason/book';
import { faults } from '$library/faults';
import { reasonModel } from '$library/reason/model';
import { libraryWeight } from '$library/reason/odds';
import { testKinds, testsFor } from '$library/reason/tests';
import { repairs } from '$library/repairs';
import { vehicleTypes } from '$library/index';

export const load = async (event) => {
	const { reasonBooks, trackRecord } = event.locals.services;
	const [book, timed] = await Promise.all([reasonBooks.read(), trackRecord.minutes()]);
	const wanted = event.url.searchParams.get('vehicle');
	const type = wanted === null ? undefined : vehicleTypes.get(wanted);
	return {
		version: book.version,
		mayEdit: mayEditCodes(memberHere(event)),
		tests: [...testKinds.values()].map(({ id, name, minutes }) => ({
			id,
			name,
			library: minutes,
			minutes: book.tests[id] ?? minutes,
			timed: timed[id] ?? null
		})),
		repairs: [...repairs.values()].map(({ id, name, minutes, price, part }) => ({
			id,
			name,
			part,
			library: { minutes, price },
			...(book.repairs[id] ?? { minutes, price })
		})),
		odds: [...faults.values()].map(({ id, name, link }) => ({
			id,
			name,
			link,
			library: libraryWeight(id),
			weight: book.odds[id] ?? libraryWeight(id)
		})),
		vehicles: [...vehicleTypes.values()].map(({ id, maker, model }) => ({ id, name: `${maker} ${model}` })),
		checked: type ? { id: type.id, pairs: separability(type) } : null
	};
};

/** Faults of one place that no test of the library tells apart. */
function separability(type: NonNullable<ReturnType<typeof vehicleTypes.get>>) {
	const model = reasonModel(type);
	const corner = type.wheels[0]?.position;
	const places = [
		corner,
		...model.faults.filter(({ fault }) => fault.at !== 'corner').map(({ place }) => place)
	];
	const tests = testsFor(type);
	return [...new Set(places)].flatMap((place) => {
		const here = [...model.faults.keys()].filter((index) => model.faults[index]?.place === place);
		const signs = [...new Set(tests.flatMap((test) => test.signs))];
		return inseparable(model, signs, here).map(({ a, b, most, sameRepair }) => ({
			where: place === corner ? 'a wheel' : placeWords(place ?? '', type),
			a: model.faults[a]?.fault.name ?? '',
			b: model.faults[b]?.fault.name ?? '',
			most,
			sameRepair
		}));
	});
}

export const actions = {
	save: async (event) => {
		const member = memberHere(event);
		const form = await event.request.formData();
		const book: ReasonBook = { version: Number(form.get('version')), tests: {}, repairs: {}, odds: {} };
		for (const [name, value] of form) {
			const [what, id = '', part = ''] = name.split('/');
			const number = Number(String(value).replace(',', '.'));
			if (what === 'test') book.tests[id] = number;
			else if (what === 'odds') book.odds[id] = number;
			else if (what === 'repair') {
				const known = book.repairs[id] ?? { minutes: NaN, price: NaN };
				book.repairs[id] = part === 'price' ? { ...known, price: number } : { ...known, minutes: number };
			}
		}
		const parsed = ReasonBook.safeParse(book);
		if (!parsed.success) {
			const [issue] = parsed.error.issues;
			const [kind, id] = issue?.path ?? [];
			const name =
				kind === 'tests'
					? testKinds.get(String(id))?.name
					: kind === 'repairs'
						? repairs.get(String(id))?.name
						: faults.get(String(id))?.name;
			return fail(400, { error: `${name ?? String(id)}: ${issue?.message ?? 'a number is missing'}` });
		}
		const stored = await event.locals.services.reasonBooks.write(parsed.data, member);
		return stored.ok ? { saved: stored.value.version } : fail(409, { error: stored.error });
	}
};
