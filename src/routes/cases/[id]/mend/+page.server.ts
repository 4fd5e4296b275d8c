import { isCalibrating } from '$lib/case/mend/calibrations';
import { ofKind } from '$lib/case/thread/thread';
import { placeWords } from '$lib/case/reason/words';
import { upperFirst } from '$lib/case/words';
import { makersAlone } from '$library/exposed';
import { allPlaces } from '$library/faultPlaces';
import { MAKERS_PROCEDURE, PLACES, repairs } from '$library/repairs';
import { CAR_POSITIONS, POSITIONS, type Position, type VehicleType } from '$library/index';
import { caseHere } from '$lib/server/cases/access';
import { cautionsHere } from '$lib/server/cases/cautionsHere';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { NoteForm, RepairForm } from './forms';

const EMPTY = { title: '', position: '', parts: [], temporary: false, note: '', does: '' };

/** The form for a repair that was chosen on Reason. */
function chosen(kind: string | null, place: string | null): typeof EMPTY {
	const repair = kind === null ? undefined : repairs.get(kind);
	if (!repair || place === null) return EMPTY;
	return {
		...EMPTY,
		title: upperFirst(repair.name),
		position: isPosition(place) ? place : '',
		does: `${repair.id}@${place}`
	};
}

export const load = async ({ params, depends, url, locals }) => {
	depends('jaldi:case');
	const { row, view } = await caseHere({ params, locals });
	const cautions = await cautionsHere(locals.services, row.type);
	const done = ofKind(view.entries, 'repair');
	const correcting = done.find((repair) => repair.id === url.searchParams.get('correct')) ?? null;
	const values = correcting
		? {
				...correcting.payload,
				position: correcting.payload.position ?? '',
				does: correcting.payload.does
					? `${correcting.payload.does.kind}@${correcting.payload.does.place}`
					: ''
			}
		: chosen(url.searchParams.get('does'), url.searchParams.get('place'));
	const type = row.type;
	const [kind, place] = [url.searchParams.get('does'), url.searchParams.get('place')];
	return {
		cautions: cautions.words([
			'wheel-off',
			'wheel-turns',
			'connector-open',
			'brakes-apart',
			'restraint-near'
		]),
		kinds: type ? repairKinds(type) : [],
		chosen: kind !== null && place !== null ? { kind, place, calibrates: isCalibrating(kind) } : null,
		positions: row.type?.wheels.map((wheel) => wheel.position) ?? [...CAR_POSITIONS],
		repairs: done.map((repair) => ({
			id: repair.id,
			time: clock(repair.observedAt),
			by: repair.authorName,
			...repair.payload
		})),
		notes: ofKind(view.entries, 'note').map((note) => ({
			id: note.id,
			time: clock(note.observedAt),
			by: note.authorName,
			text: note.payload.text
		})),
		codes: view.codes.map(({ text, title, moduleName }) => ({ text, title, moduleName })),
		correcting: correcting?.id ?? null,
		repairForm: await entryFormFor(RepairForm, values, correcting),
		noteForm: await entryFormFor(NoteForm, { text: '' })
	};
};

/** Every repair of the library with the places of this vehicle where it can be done. */
function repairKinds(type: VehicleType) {
	const all = PLACES.flatMap((at) => allPlaces(at, type).map((place) => ({ at, place })));
	return [...repairs.values()].flatMap(({ id, name, at }) => {
		const places = all
			.filter((one) => at === 'any' || one.at === at)
			.filter(({ place }) => (id === MAKERS_PROCEDURE) === (makersAlone(type, place) !== null))
			.map(({ place }) => ({ id: place, words: placeWords(place, type) }));
		return places.length > 0 ? [{ id, words: upperFirst(name), places }] : [];
	});
}

const isPosition = (text: string): text is Position => (POSITIONS as readonly string[]).includes(text);

/** `clean-encoder@rear-left` → the entry's words for it; nothing where it is none. */
function doesOf(text: string): { does?: { kind: string; place: string } } {
	const [kind = '', place = ''] = text.split('@');
	return repairs.has(kind) ? { does: { kind, place } } : {};
}

export const actions = {
	repair: entryAction(
		RepairForm,
		'repair',
		({ title, position, parts, temporary, note, does }) => ({
			title,
			position: isPosition(position) ? position : null,
			parts,
			temporary,
			note,
			...doesOf(does)
		}),
		'Repair saved. Now it has to be proven.'
	),
	note: entryAction(NoteForm, 'note', ({ text }) => ({ text }), 'Note saved.')
};
