/** A question whose answer tells families of sensors apart. */
export interface SensorQuestion<Family extends string> {
	id: string;
	/** Each answer with how likely it is of each family. */
	answers: { id: string; likelihood: Record<Family, number> }[];
}

export interface Identified<Family extends string> {
	/** Most probable first; they add up to 1. */
	families: { family: Family; probability: number }[];
	/** The family, once it is beyond doubt. */
	certain: Family | null;
	/** The open question that tells most, in bits; null once nothing is to be learned. */
	next: { id: string; bits: number } | null;
	/** No family fits all the answers: one of them is wrong. */
	contradiction: boolean;
}

const CERTAIN = 0.95;
const WORTH_ASKING_BITS = 0.02;
/** Below this, all families together are as good as ruled out. */
const RULED_OUT = 1e-3;

const entropyBits = (shares: readonly number[]): number =>
	shares.reduce((sum, share) => (share > 0 ? sum - share * Math.log2(share) : sum), 0);

/**
 * Which family a sensor is of, by Bayes over the answers given, and the question that would tell most: the expected fall of
 * the entropy over its answers.
 *
 * @param prior how common each family is; need not add up to 1
 */
export function identifySensor<Family extends string>(
	prior: Record<Family, number>,
	questions: readonly SensorQuestion<Family>[],
	given: Record<string, string>
): Identified<Family> {
	const families = Object.keys(prior) as Family[];
	const all = families.reduce((sum, family) => sum + prior[family], 0);
	let weights = families.map((family) => prior[family] / all);
	let evidence = 1;
	for (const { id, answers } of questions) {
		const answer = answers.find((one) => one.id === given[id]);
		if (!answer) continue;
		const next = weights.map((weight, i) => weight * likelihood(answer, families[i]));
		const sum = next.reduce((a, b) => a + b, 0);
		evidence *= sum;
		if (sum > 0) weights = next.map((weight) => weight / sum);
	}
	const before = entropyBits(weights);
	const open = questions
		.filter(({ id }) => given[id] === undefined)
		.map(({ id, answers }) => {
			const after = answers.reduce((sum, answer) => {
				const joint = weights.map((weight, i) => weight * likelihood(answer, families[i]));
				const chance = joint.reduce((a, b) => a + b, 0);
				return chance > 0 ? sum + chance * entropyBits(joint.map((one) => one / chance)) : sum;
			}, 0);
			return { id, bits: before - after };
		})
		.sort((a, b) => b.bits - a.bits);
	const ranked = families
		.map((family, i) => ({ family, probability: weights[i] ?? 0 }))
		.sort((a, b) => b.probability - a.probability);
	const best = ranked[0];
	const contradiction = evidence < RULED_OUT;
	const certain = best && best.probability >= CERTAIN && !contradiction ? best.family : null;
	const next = certain === null ? (open[0] ?? null) : null;
	return {
		families: ranked,
		certain,
		next: next && next.bits > WORTH_ASKING_BITS ? next : null,
		contradiction
	};
}

const likelihood = <Family extends string>(
	answer: { likelihood: Record<Family, number> },
	family: Family | undefined
): number => (family === undefined ? 0 : answer.likelihood[family]);
