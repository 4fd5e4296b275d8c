<script lang="ts" module>
	import type { Condition, Operand } from '../core/conditions/condition';

	export interface SignalChoice {
		signal: string;
		name: string;
		unit: string;
		isSwitch: boolean;
	}

	const signalOperand = (signal = 'vehicle'): Operand => ({ kind: 'signal', signal });
	/** A comparison to begin with. */
	export const freshCondition = (): Condition => ({
		kind: 'compare',
		left: signalOperand(),
		is: 'above',
		right: { kind: 'value', value: 20 },
		hysteresis: 0
	});
</script>

<script lang="ts">
	import Self from './ConditionForm.svelte';

	/** A set condition as rows of choices; groups and times are indented under a line. */
	let {
		condition,
		signals,
		onchange,
		onremove = null,
		depth = 0
	}: {
		condition: Condition;
		signals: SignalChoice[];
		onchange: (condition: Condition) => void;
		onremove?: (() => void) | null;
		depth?: number;
	} = $props();

	const KINDS = [
		['compare', 'compare'],
		['all', 'all of these'],
		['any', 'any of these'],
		['not', 'not'],
		['held', 'for a time']
	] as const;
	const IS = [
		['above', 'above'],
		['at-least', 'at least'],
		['below', 'below'],
		['at-most', 'at most'],
		['equal', 'at']
	] as const;
	const OPERANDS = [
		['signal', 'a signal'],
		['value', 'a number'],
		['difference', 'the difference of two'],
		['share', 'a share of a signal']
	] as const;

	/** Turning one kind into another keeps what was written inside it. */
	function turn(kind: Condition['kind']) {
		if (kind === condition.kind) return;
		const inner: Condition =
			condition.kind === 'compare'
				? condition
				: Array.isArray(condition.of)
					? (condition.of[0] ?? freshCondition())
					: condition.of;
		const several = condition.kind === 'all' || condition.kind === 'any' ? condition.of : [inner];
		if (kind === 'compare') onchange(inner.kind === 'compare' ? inner : freshCondition());
		else if (kind === 'all' || kind === 'any') onchange({ kind, of: several });
		else if (kind === 'not') onchange({ kind, of: condition });
		else onchange({ kind: 'held', forS: 1, of: condition });
	}
	function turnOperand(kind: Operand['kind'], side: 'left' | 'right') {
		const made: Record<Operand['kind'], Operand> = {
			signal: signalOperand(),
			value: { kind: 'value', value: 0 },
			difference: { kind: 'difference', between: ['front_left', 'rear_left'] },
			share: { kind: 'share', percent: 50, of: 'vehicle' }
		};
		if (condition.kind === 'compare') onchange({ ...condition, [side]: made[kind] });
	}
	const number = (event: Event) =>
		Number((event.currentTarget as HTMLInputElement).value.replace(',', '.')) || 0;
	const chosen = (event: Event) => (event.currentTarget as HTMLSelectElement).value;
	const unitOf = (operand: Operand) =>
		operand.kind === 'signal'
			? (signals.find((s) => s.signal === operand.signal)?.unit ?? '')
			: operand.kind === 'share'
				? (signals.find((s) => s.signal === operand.of)?.unit ?? '')
				: operand.kind === 'difference'
					? (signals.find((s) => s.signal === operand.between[0])?.unit ?? '')
					: '';
</script>

{#snippet pickSignal(value: string, label: string, pick: (signal: string) => void)}
	<select class="field w-auto!" {value} aria-label={label} onchange={(event) => pick(chosen(event))}>
		{#if !signals.some((s) => s.signal === value)}<option {value}>{value}</option>{/if}
		{#each signals as { signal, name }, nth (nth)}<option value={signal}>{name}</option>{/each}
	</select>
{/snippet}

{#snippet side(operand: Operand, which: 'left' | 'right', unit: string)}
	{@const put = (next: Operand) => condition.kind === 'compare' && onchange({ ...condition, [which]: next })}
	<select
		class="field w-auto!"
		value={operand.kind}
		aria-label={which === 'left' ? 'What is compared' : 'With what'}
		onchange={(event) => turnOperand(chosen(event) as Operand['kind'], which)}
	>
		{#each OPERANDS as [kind, words] (kind)}<option value={kind}>{words}</option>{/each}
	</select>
	{#if operand.kind === 'signal'}
		{@render pickSignal(operand.signal, 'Signal', (signal) => put({ kind: 'signal', signal }))}
	{:else if operand.kind === 'value'}
		<span class="inline-flex items-center gap-2">
			<input
				class="field num w-28! text-right"
				type="number"
				step="any"
				value={operand.value}
				aria-label="Number"
				onchange={(event) => put({ kind: 'value', value: number(event) })}
			/>{unit}
		</span>
	{:else if operand.kind === 'difference'}
		{@const [a, b] = operand.between}
		{@render pickSignal(a, 'First signal', (signal) => put({ kind: 'difference', between: [signal, b] }))}
		and
		{@render pickSignal(b, 'Second signal', (signal) => put({ kind: 'difference', between: [a, signal] }))}
	{:else}
		<span class="inline-flex items-center gap-2">
			<input
				class="field num w-24! text-right"
				type="number"
				min="0"
				max="1000"
				value={operand.percent}
				aria-label="Percent"
				onchange={(event) => put({ kind: 'share', percent: number(event), of: operand.of })}
			/>% of
		</span>
		{@render pickSignal(operand.of, 'Signal', (signal) => put({ ...operand, of: signal }))}
	{/if}
{/snippet}

<div
	class={depth > 0 ? 'border-l-4 border-rule pl-3' : ''}
	role="group"
	aria-label="Condition, level {depth + 1}"
>
	<div class="flex flex-wrap items-center gap-2 py-1.5">
		<select
			class="field w-auto! font-semibold"
			value={condition.kind}
			aria-label="Kind of condition"
			onchange={(event) => turn(chosen(event) as Condition['kind'])}
		>
			{#each KINDS as [kind, words] (kind)}<option value={kind}>{words}</option>{/each}
		</select>
		{#if condition.kind === 'compare'}
			{@const unit = unitOf(condition.left) || unitOf(condition.right)}
			{@render side(condition.left, 'left', unit)}
			<select
				class="field w-auto!"
				value={condition.is}
				aria-label="Comparison"
				onchange={(event) =>
					condition.kind === 'compare' &&
					onchange({ ...condition, is: chosen(event) as typeof condition.is })}
			>
				{#each IS as [is, words] (is)}<option value={is}>{words}</option>{/each}
			</select>
			{@render side(condition.right, 'right', unit)}
			{#if condition.hysteresis === 0}
				<button
					type="button"
					class="min-h-11 cursor-pointer px-1 text-sm text-ink-2 underline underline-offset-4"
					onclick={() => condition.kind === 'compare' && onchange({ ...condition, hysteresis: 1 })}
					>with hysteresis</button
				>
			{:else}
				<label class="inline-flex items-center gap-2 text-sm text-ink-2">
					ends only
					<input
						class="field num w-20! text-right"
						type="number"
						min="0"
						step="any"
						value={condition.hysteresis}
						aria-label="Hysteresis"
						onchange={(event) =>
							condition.kind === 'compare' && onchange({ ...condition, hysteresis: number(event) })}
					/>
					{unit} past it
				</label>
			{/if}
		{:else if condition.kind === 'held'}
			<label class="inline-flex items-center gap-2">
				<input
					class="field num w-24! text-right"
					type="number"
					min="0.01"
					step="any"
					value={condition.forS}
					aria-label="Seconds"
					onchange={(event) => condition.kind === 'held' && onchange({ ...condition, forS: number(event) })}
				/>
				s without a break
			</label>
		{/if}
		{#if onremove}<button type="button" class="act-quiet" onclick={onremove}>Remove</button>{/if}
	</div>
	{#if condition.kind === 'all' || condition.kind === 'any'}
		{@const parts = condition.of}
		{@const kind = condition.kind}
		{#each parts as part, i (i)}
			<Self
				condition={part}
				{signals}
				depth={depth + 1}
				onchange={(next: Condition) => onchange({ kind, of: parts.map((p, at) => (at === i ? next : p)) })}
				onremove={parts.length > 1 ? () => onchange({ kind, of: parts.filter((_, at) => at !== i) }) : null}
			/>
		{/each}
		<button
			type="button"
			class="act-quiet my-2"
			onclick={() => onchange({ kind, of: [...parts, freshCondition()] })}>Add a part</button
		>
	{:else if condition.kind === 'not' || condition.kind === 'held'}
		{@const outer = condition}
		<Self
			condition={outer.of}
			{signals}
			depth={depth + 1}
			onchange={(next: Condition) => onchange({ ...outer, of: next })}
		/>
	{/if}
</div>
