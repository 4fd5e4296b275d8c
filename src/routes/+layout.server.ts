export const load = ({ locals, cookies }) => ({
	member: locals.member,
	theme: cookies.get('jaldi-theme') === 'bay' ? ('bay' as const) : ('day' as const)
});
