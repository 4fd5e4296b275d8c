<script lang="ts">
	/** A code that was just made: it is shown this once. */
	let { name, code, href }: { name: string; code: string; href: string } = $props();
</script>

<div role="status" class="mt-3 border-l-4 border-ink pl-4">
	<p class="font-semibold">The way in for {name} is open for seven days. It is shown this once.</p>
	<p class="num mt-1 text-2xl font-bold">{code}</p>
	<p class="mt-1">
		They type it at <span class="num [overflow-wrap:anywhere]">{href.split('?')[0]}</span>, or open
		<a class="num [overflow-wrap:anywhere] underline underline-offset-4" {href}>the link</a> on their own device.
	</p>
</div>
