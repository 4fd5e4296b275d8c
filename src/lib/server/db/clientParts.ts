import type { InStatement } from '@libsql/client';

const READS = /^\s*(?:select|explain|pragma|values)\b/i;

/** Whether a statement only reads. */
export const isRead = (statement: InStatement): boolean =>
	READS.test(typeof statement === 'string' ? statement : statement.sql);

/** The same thing with some of its methods answered by others. */
export function withOwn<T extends object>(thing: T, own: Partial<T>): T {
	return new Proxy(thing, {
		get(target, name) {
			if (Object.hasOwn(own, name)) return own[name as keyof T];
			const value: unknown = Reflect.get(target, name, target);
			return typeof value === 'function' ? value.bind(target) : value;
		}
	});
}
