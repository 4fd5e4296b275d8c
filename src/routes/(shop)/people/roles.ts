/** What each role is called and may do, in one line. */
export const ROLE_WORDS = {
	technician: { name: 'Technician', may: 'adds to cases' },
	lead: { name: 'Lead', may: 'also signs cases off and looks after the shop' },
	office: { name: 'Office', may: 'takes vehicles in, speaks with customers, plans the day' },
	viewer: { name: 'Viewer', may: 'looks at everything and adds nothing' }
} as const;
