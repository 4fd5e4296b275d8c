import { CAR_POSITIONS } from '../library/positions';
import { compareTyres, whatItBelieves, type Drive } from '../src/lib/core/tyres/compareTyres';
import {
	revolutionsPerKm,
	rollingCircumferenceMm,
	USUAL_LOAD_FACTOR
} from '../src/lib/core/tyres/rollingCircumference';
import { cautionsOf } from '../src/lib/core/tyres/tyreReport';
import { parseTyreSize, type TyreSize } from '../src/lib/core/tyres/tyreSize';
import {
	complain,
	DONE,
	NOT_UNDERSTOOD,
	readArguments,
	say,
	strong,
	WrongUsage,
	type Command
} from './command';
import { readDrive } from './drive';

/** A number above zero given with an option; undefined where it is not given. */
function numberOf(name: string, text: string | undefined): number | undefined {
	if (text === undefined) return undefined;
	const value = Number(text);
	if (!(value > 0) || !Number.isFinite(value))
		throw new WrongUsage(`--${name} expects a number above 0, not "${text}"`);
	return value;
}

/** `jaldi tyres FL FR RL RR [--json] [--threshold-kmh X] [--drive front|rear|all] [--load-factor 0.96]` */
export const tyres: Command = async (args) => {
	const { values, positionals } = readArguments(args, {
		'threshold-kmh': { type: 'string' },
		drive: { type: 'string' },
		'load-factor': { type: 'string' }
	});
	const drive = readDrive(values.drive);
	const thresholdKmh = numberOf('threshold-kmh', values['threshold-kmh']) ?? null;
	const loadFactor = numberOf('load-factor', values['load-factor']) ?? USUAL_LOAD_FACTOR;
	if (loadFactor < 0.8 || loadFactor > 1) throw new WrongUsage('--load-factor lies between 0.8 and 1');
	if (positionals.length !== 1 && positionals.length !== CAR_POSITIONS.length) {
		throw new WrongUsage(
			'give one size for all wheels, or four: front left, front right, rear left, rear right'
		);
	}
	const texts = CAR_POSITIONS.map((_, i) => positionals[positionals.length === 1 ? 0 : i] ?? '');
	const read = texts.map(parseTyreSize);
	const bad = read.flatMap((one, i) => (one.ok ? [] : [`jaldi tyres: "${texts[i]}": ${one.error}`]));
	if (bad.length > 0) {
		for (const line of new Set(bad)) complain(line);
		return NOT_UNDERSTOOD;
	}
	const sizes = read.flatMap((one) => (one.ok ? [one.value] : []));
	const report = reportOf(sizes, loadFactor, thresholdKmh, drive);
	await say(values.json ? `${JSON.stringify(report)}\n` : textOf(report));
	return DONE;
};

const round = (value: number, digits: number) => Number(value.toFixed(digits));

function reportOf(sizes: TyreSize[], loadFactor: number, thresholdKmh: number | null, drive: Drive | null) {
	const corners = CAR_POSITIONS.map((corner, i) => {
		const size = sizes[i];
		const diameterMm = size?.diameterMm ?? 0;
		return {
			corner,
			size: size?.text ?? '',
			diameterMm,
			circumferenceMm: rollingCircumferenceMm(diameterMm, loadFactor)
		};
	});
	const compared = compareTyres(
		corners.map(({ corner, circumferenceMm }) => ({
			position: corner,
			axle: corner.startsWith('front') ? 1 : 2,
			side: corner.endsWith('left') ? ('left' as const) : ('right' as const),
			circumferenceMm
		})),
		thresholdKmh
	);
	return {
		corners: corners.map((one) => ({
			...one,
			diameterMm: round(one.diameterMm, 1),
			circumferenceMm: round(one.circumferenceMm, 1),
			revsPerKm: round(revolutionsPerKm(one.circumferenceMm), 1)
		})),
		frontToRear: round(compared.frontToRear, 4),
		leftToRight: round(compared.leftToRight, 4),
		spreadPercentMax: round(compared.spreadPercent, 2),
		crossesThresholdAtKmh: compared.crossesAtKmh === null ? null : round(compared.crossesAtKmh, 1),
		text: sentences(compared, thresholdKmh, drive, sizes)
	};
}

function sentences(
	{ frontToRear, spreadPercent, crossesAtKmh }: ReturnType<typeof compareTyres>,
	thresholdKmh: number | null,
	drive: Drive | null,
	sizes: TyreSize[]
): string {
	const said =
		spreadPercent < 0.05
			? ['All wheels roll alike.']
			: [`The wheels roll up to ${spreadPercent.toFixed(1)} % apart.`, whatItBelieves(frontToRear, drive)];
	if (crossesAtKmh !== null) {
		said.push(
			`From ${crossesAtKmh.toFixed(0)} km/h on the readings differ by more than ${thresholdKmh} km/h.`
		);
	}
	return [...said, ...cautionsOf(sizes)].join(' ');
}

function textOf(report: ReturnType<typeof reportOf>): string {
	const rows = report.corners.map(
		({ corner, size, diameterMm, circumferenceMm, revsPerKm }) =>
			`${corner.padEnd(12)} ${size.padEnd(14)} ${diameterMm.toFixed(1).padStart(7)} mm ${circumferenceMm.toFixed(0).padStart(6)} mm round ${revsPerKm.toFixed(1).padStart(7)} turns a km`
	);
	return `${rows.join('\n')}\n${strong(report.text)}\n`;
}
