import { CodePack } from '../../../../library/codePack';
import { bookOf, shippedBook, shippedPacks, titleSource, type CodeBook } from '../../../../library/codes';
import type { VehicleType } from '../../../../library';
import { codeText } from '../../core/codes/dtc';
import { CORNER_CODES } from '../modules/corners';

const books = new WeakMap<VehicleType, CodeBook>();

/**
 * The words for codes that a technician has at hand: the shipped ones, and of a vehicle whose maker nobody has a list of, what
 * its maker says of its own wheel codes. Somebody looks that up and writes it down, as the product asks.
 */
export function bookAtHand(type: VehicleType): CodeBook {
	const known = books.get(type);
	if (known) return known;
	const own = type.wheels.flatMap(({ position }) => {
		const { circuit, ring } = CORNER_CODES[position];
		const of = (hex: string, group: 'wheel-speed' | 'tone-ring') => ({
			code: codeText(`${hex}00`),
			title: `${position.replace('-', ' ')} ${group.replace('-', ' ')}`,
			group,
			corner: position,
			lamps: [],
			driving: 'reduced',
			causes: ['lead, plug, sensor or ring of that wheel'],
			notes: ''
		});
		return [of(circuit, 'wheel-speed'), of(ring, 'tone-ring')];
	});
	const missing = own.filter(
		({ code }) => !titleSource(shippedBook, { code, failureType: null, maker: type.maker || null })
	);
	const book =
		missing.length === 0
			? shippedBook
			: bookOf([
					...shippedPacks,
					CodePack.parse({
						format: 'jaldi-code-pack',
						version: 1,
						id: 'makers-list',
						name: 'What the maker says',
						source: 'the maker’s own list',
						date: '2026-01-01',
						maker: type.maker || null,
						conditions: 'typical',
						definitions: missing
					})
				]);
	books.set(type, book);
	return book;
}
