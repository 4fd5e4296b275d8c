/** `front_left` → `the front left`. */
export const channelWords = (name: string): string => name.replaceAll('_', ' ');
/** Volts with three figures, in millivolts below a tenth. */
export const voltWords = (volts: number): string =>
	Math.abs(volts) < 0.1 ? `${(volts * 1000).toFixed(0)} mV` : `${volts.toFixed(2)} V`;
export const times = (count: number): string =>
	count === 1 ? 'once' : count === 2 ? 'twice' : `${count} times`;
