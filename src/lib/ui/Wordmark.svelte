<a href="/" aria-label="Jaldi, to the floor" class="inline-block shrink-0 justify-self-start">
	<span class="block text-xl leading-none font-extrabold tracking-tight">jaldi</span>
	<span class="mt-[3px] block h-[5px] w-full bg-next"></span>
</a>
