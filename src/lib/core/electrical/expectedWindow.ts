import type { Window } from './judgeReading';

/** Where a window comes from, in rising rank: what a shop or a vehicle knows beats what is usual. */
export const WINDOW_SOURCES = ['library', 'vehicle', 'shop', 'mate'] as const;
export type WindowSource = (typeof WINDOW_SOURCES)[number];

/** How the window of a measurement is worked out. */
export type WindowRule =
	| { kind: 'fixed'; low: number; high: number | null }
	/** Against the vehicle's supply as it was measured. */
	| { kind: 'supply'; fromV: number; toV: number }
	/** A sensor's current through the module's sense resistor. */
	| { kind: 'sense'; lowA: number; highA: number; tolerance: number };

export interface KnownVehicle {
	senseResistorOhms: number | null;
	/** Measured at the battery; 12.4 V where nobody has measured. */
	supplyVolts: number | null;
}

export interface ExpectedWindow extends Window {
	source: WindowSource;
	/** Where it comes from, in a few words. */
	because: string;
}

const USUAL_SUPPLY_V = 12.4;
/** What two sound wheels differ by, and the shop's readings of one type among each other. */
const MATE_SHARE = 0.12;
const SHOP_SHARE = 0.15;
const SHOP_SPREADS = 3;
/** Readings below this are compared by difference, not by share. */
const SMALL: Record<'V' | 'Ω' | 'A', number> = { V: 0.05, Ω: 0.5, A: 0.002 };

/** What the maker's or the general data say. */
export function ruledWindow(rule: WindowRule, vehicle: KnownVehicle): ExpectedWindow {
	switch (rule.kind) {
		case 'fixed':
			return {
				low: rule.low,
				high: rule.high ?? Infinity,
				source: 'library',
				because: 'usual for this kind of sensor'
			};
		case 'supply': {
			const supply = vehicle.supplyVolts ?? USUAL_SUPPLY_V;
			const measured = vehicle.supplyVolts === null ? 'taken for' : 'measured as';
			return {
				low: supply + rule.fromV,
				high: supply + rule.toV,
				source: 'library',
				because: `from the supply, ${measured} ${supply.toFixed(1)} V`
			};
		}
		case 'sense': {
			const ohms = vehicle.senseResistorOhms;
			if (ohms === null)
				return {
					low: rule.lowA * 75,
					high: rule.highA * 140,
					source: 'library',
					because: 'for sense resistors from 75 to 140 Ω'
				};
			return {
				low: rule.lowA * ohms * (1 - rule.tolerance),
				high: rule.highA * ohms * (1 + rule.tolerance),
				source: 'vehicle',
				because: `from this vehicle’s sense resistor of ${ohms} Ω`
			};
		}
	}
}

/**
 * The window to judge by: the mate's good reading first, then what this shop has read on good vehicles of the type, then
 * the rule. What is known narrows the rule's window and never moves out of it: two bad wheels do not make each other good.
 *
 * @param shop readings that were kept as good, of this vehicle type and state
 */
export function expectedWindow(
	rule: WindowRule,
	quantity: 'V' | 'Ω' | 'A',
	vehicle: KnownVehicle,
	known: { mate: number | null; shop: readonly number[] }
): ExpectedWindow {
	const ruled = ruledWindow(rule, vehicle);
	const around = (middle: number, half: number, source: WindowSource, because: string): ExpectedWindow => ({
		low: Math.max(ruled.low, middle - half),
		high: Math.min(ruled.high, middle + half),
		source,
		because
	});
	const within = (value: number) => value >= ruled.low && value <= ruled.high && Number.isFinite(value);
	const { mate } = known;
	if (mate !== null && within(mate))
		return around(
			mate,
			Math.max(SMALL[quantity], MATE_SHARE * Math.abs(mate)),
			'mate',
			'from its mate on this vehicle'
		);
	const good = known.shop.filter(within);
	if (good.length > 0) {
		const mean = good.reduce((sum, value) => sum + value, 0) / good.length;
		const spread = Math.sqrt(
			good.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, good.length - 1)
		);
		const half = Math.max(SMALL[quantity], SHOP_SHARE * Math.abs(mean), SHOP_SPREADS * spread);
		const said = good.length === 1 ? 'one good reading' : `${good.length} good readings`;
		return around(mean, half, 'shop', `from ${said} on this type here`);
	}
	return ruled;
}
