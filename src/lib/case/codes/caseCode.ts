import type { Position } from '../../../../library';
import type { Group } from '../../../../library/codePack';
import type { CodeId } from '../../core/codes/codeId';
import type { CodeProof } from '../../core/prove/proof';

/** One code in one module over the whole case, with how far it is proven. */
export interface CaseCode {
	dtc: CodeId;
	/** `C0045-13`. */
	text: string;
	title: string | null;
	/** Its title, or what another tool prints of it. */
	called: string;
	/** Empty where it does not say how it failed. */
	failureType: string;
	/** The wheel whose circuit it is about; null where it is about none. */
	corner: Position | null;
	/** What kind of thing it is about; null where no source says. */
	group: Group | null;
	address: string;
	moduleName: string;
	/** As read last. */
	status: number;
	proof: CodeProof;
	/** The test of ours that set it, by its entry; null where it was there by itself. */
	madeByUs: string | null;
	/** What it follows from, by who sends what to whom; null where it stands for itself. */
	followsFrom: string | null;
	/** The repair after which it is expected until the module is told or taught; null where it is not. */
	expected: string | null;
}
