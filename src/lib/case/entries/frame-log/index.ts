import { entryKind, line } from '../kind';
import { formatSpelling } from '../../../core/codes/spelling';
import { count, listed } from '../lineWords';
import { FrameLog } from './payload';

export const frameLog = entryKind('frame-log', FrameLog, {
	about: 'A capture of bus traffic: the codes in it, and the exchanges byte for byte.',
	group: 'read',
	writer: 'hand',
	changesVerdicts: false,
	line: ({ fileName, modules, broadcasts, exchangeCount, problemCount }) => {
		const codes = [
			...modules.flatMap((module) =>
				module.codes.map((code) => formatSpelling({ kind: 'dtc', ...code, status: null }))
			),
			...broadcasts.flatMap((one) => one.codes.map(({ spn, fmi }) => `SPN ${spn} FMI ${fmi}`))
		];
		return line(
			`Frame log ${fileName}`,
			codes.length > 0 ? listed(codes) : `${count(exchangeCount, 'exchange')}, no codes`,
			problemCount > 0 ? count(problemCount, 'broken message') : null
		);
	}
});
