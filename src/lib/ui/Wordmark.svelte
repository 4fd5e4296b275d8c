<a
	href="/"
	aria-label="Jaldi, to the floor"
	class="inline-flex min-h-11 min-w-11 shrink-0 flex-col justify-center justify-self-start"
>
	<span class="block text-xl leading-none font-extrabold tracking-tight">jaldi</span>
	<span class="mt-[3px] block h-[5px] w-full bg-next"></span>
</a>
