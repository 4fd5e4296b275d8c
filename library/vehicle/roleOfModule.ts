import { codeSystem, codeText, type DtcHex } from '../../src/lib/core/codes/dtc';
import { ModuleRole } from './vehicleType';

/** Words by which modules of a kind call themselves, most particular first. */
const SAYS: readonly (readonly [role: ModuleRole, words: RegExp])[] = [
	['trailer-brake', /trailer|\bebs\b/],
	['park-brake', /\bparking|\bpark brake|\bepb\b/],
	['steering-angle', /steering (wheel )?angle|\bsas\b/],
	['power-steering', /(power|electric) steering|steering (assist|gear|column)|\beps\b/],
	['yaw', /\byaw|\blateral|inertia|\brate sensor/],
	['restraint', /restraint|air ?bag|\bsrs\b/],
	['cluster', /cluster|instrument|\bdash|display|\bipc?\b/],
	['gateway', /gateway|\bgw\b|\bcgw\b|\bcan bus\b|body control|\bbcm\b/],
	['engine', /engine|motor|power ?train|\becm\b|\bpcm\b|drive control/],
	['brake', /brake|\babs\b|\besc\b|\besp\b|stability|traction|anti ?lock/]
];
/** Wheel speed circuits of the standard's codes (ISO/SAE): only who reads the wheels knows these. */
const WHEEL_CODE = /^C00(3[0-9A-F]|4[0-9A-F]|50)/;
const MANY = 4;

/** What a module can be that is called so, by itself or in a print-out, the most particular first. */
export function rolesCalled(name: string): ModuleRole[] {
	const words = name.toLowerCase().replace(/[\s_./-]+/g, ' ');
	return SAYS.filter(([, pattern]) => pattern.test(words)).map(([role]) => role);
}

/**
 * What a module probably is, by what it calls itself and which codes it can set; null where neither tells. A proposal: a
 * person says what it is.
 */
export function roleOfModule({
	name,
	knows
}: {
	name: string | null;
	knows: readonly DtcHex[];
}): ModuleRole | null {
	const [said] = rolesCalled(name ?? '');
	if (said) return said;
	const codes = knows.map(codeText);
	if (codes.filter((code) => WHEEL_CODE.test(code)).length >= MANY) return 'brake';
	const engine = codes.filter((code) => codeSystem(code) === 'powertrain').length;
	return engine > 0 && engine * 2 > codes.length ? 'engine' : null;
}
