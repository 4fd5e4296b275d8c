import { ofKind } from '$lib/case/thread';
import { CAR_POSITIONS, POSITIONS, vehicleTypes, type Position } from '$library/index';
import { loadCase } from '$lib/server/cases/access';
import { clock } from '$lib/server/cases/clock';
import { entryAction, entryFormFor } from '$lib/server/cases/entryForms';
import { NoteForm, RepairForm } from './forms';

const EMPTY = { title: '', position: '', parts: [], temporary: false, note: '' };

export const load = async ({ params, depends, url }) => {
	depends('jaldi:case');
	const { row, view } = await loadCase(params.id);
	const repairs = ofKind(view.entries, 'repair');
	const correcting = repairs.find((repair) => repair.id === url.searchParams.get('correct')) ?? null;
	const values = correcting ? { ...correcting.payload, position: correcting.payload.position ?? '' } : EMPTY;
	return {
		positions: vehicleTypes.get(row.vehicle.typeId)?.wheels.map((wheel) => wheel.position) ?? [
			...CAR_POSITIONS
		],
		repairs: repairs.map((repair) => ({
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

const isPosition = (text: string): text is Position => (POSITIONS as readonly string[]).includes(text);

export const actions = {
	repair: entryAction(
		RepairForm,
		'repair',
		({ title, position, parts, temporary, note }) => ({
			title,
			position: isPosition(position) ? position : null,
			parts,
			temporary,
			note
		}),
		'Repair saved. Now it has to be proven.'
	),
	note: entryAction(NoteForm, 'note', ({ text }) => ({ text }), 'Note saved.')
};
