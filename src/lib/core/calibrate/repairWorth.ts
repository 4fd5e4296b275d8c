/** One way to mend, as far as its worth is concerned. Minutes of work, shares from 0 to 1. */
export interface RepairOption {
	/** Of the work itself. */
	minutes: number;
	/** To get there in full, and what of it is still to be done now. */
	accessMinutes: number;
	accessLeft: number;
	price: number;
	/** Share that is back within a year on a vehicle that is new and dry. */
	comesBack: number;
}

/** What the vehicle goes through. */
export interface Duty {
	odometerKm: number | null;
	/** Salt, sand or water at its work. */
	harsh: boolean;
}

export interface RepairWorth {
	/** Of work now: getting there and doing it. */
	minutesNow: number;
	/** Share that will be back within a year on this vehicle. */
	comesBack: number;
	/** All in minutes: work, price, and the second visit as often as it comes. */
	expectedMinutes: number;
}

/** Distance after which what was left in place is worn twice as much. */
const WORN_PER_KM = 1 / 150_000;
const HARSH_TIMES = 1.5;
/** Of a second visit besides the work: taking it in, finding it again, the word lost. */
const SECOND_VISIT_MIN = 60;

/**
 * What a repair is expected to come to, comebacks and all. A share q of a sound vehicle's repairs that come back becomes
 * 1 − (1 − q)^w on one that has seen more, w growing evenly with distance and half as much again in salt: w independent
 * chances to come back instead of one.
 *
 * @param minutesPerMoney minutes of work that buy one unit of the shop's money
 */
export function repairWorth(
	{ minutes, accessMinutes, accessLeft, price, comesBack }: RepairOption,
	{ odometerKm, harsh }: Duty,
	minutesPerMoney: number
): RepairWorth {
	const wear = (1 + Math.max(0, odometerKm ?? 0) * WORN_PER_KM) * (harsh ? HARSH_TIMES : 1);
	const back = 1 - (1 - comesBack) ** wear;
	const money = price * minutesPerMoney;
	const minutesNow = minutes + accessLeft;
	const again = SECOND_VISIT_MIN + minutes + accessMinutes + money;
	return { minutesNow, comesBack: back, expectedMinutes: minutesNow + money + back * again };
}
