/**
 * Whoever reaches the server; whoever is signed in, behind a locked screen too; whoever is signed in; whoever takes vehicles in and
 * speaks with customers; whoever works on vehicles; a lead, and what is said to others.
 */
export type Permission = 'anybody' | 'locked' | 'member' | 'desk' | 'writer' | Lead;
interface Lead {
	/** Said to whoever is no lead. */
	lead: string;
}

/** What a token of another program may be made for. */
export const SCOPES = ['read', 'add'] as const;
export type Scope = (typeof SCOPES)[number];

/** Who may do each thing that a route answers to; what is not named here nobody may. */
export interface RoutePermissions {
	/** Its page, and what the page is made of. */
	page?: Permission;
	/** Forms of the page, by the name of their action. */
	actions?: Record<string, Permission>;
	GET?: Permission;
	POST?: Permission;
	PUT?: Permission;
	/** It makes the server work: a paper, a bundle, a file that is taken in. */
	costs?: true;
	/** A program with a token of this scope may ask for it too; absent = people alone. */
	token?: Partial<Record<'GET' | 'POST' | 'PUT', Scope>>;
}

const lead = (says: string): Lead => ({ lead: says });

const PACKS = lead('A lead brings in packs and takes them away: everybody works by them.');
const SHOPS = lead('A lead says which shops are trusted.');
const DESCRIPTIONS = lead('A lead keeps descriptions in order.');
const LEARNED = lead('A lead says what is learned from: everybody is advised by it.');
const MONEY = lead('A lead says what an hour costs and what stands on papers.');
const PEOPLE = lead('A lead looks after the people of the shop.');
const SERVER = lead('A lead looks after the server.');
const BRING = lead('A lead brings cases in.');
const OWN_WORDS = lead('A lead writes the shop’s own words on codes: everybody works by them.');

const PAGE: RoutePermissions = { page: 'member' };
/** A file of a case, for people and for programs that read. */
const FILE: RoutePermissions = { GET: 'member', token: { GET: 'read' } };
/** Evidence, from people and from programs that add it. */
const EVIDENCE: RoutePermissions = { POST: 'writer', token: { POST: 'add' } };
/** Entries, each kind of which says whether the office may write it. */
const ENTRIES: RoutePermissions = { POST: 'desk', token: { POST: 'add' } };
/** The same, as a file that has to be gone through. */
const EVIDENCE_FILE: RoutePermissions = { ...EVIDENCE, costs: true };

/**
 * The one table of who may do what, by route, method and form. The gate in the hooks asks nobody else, and a route that has no row
 * is shut. What depends on the case itself (who repaired it, whether it is signed) is judged where the case is read.
 */
export const PERMISSIONS: Record<string, RoutePermissions> = {
	'/(shop)': { page: 'member', actions: { here: 'desk' } },
	'/(shop)/cases/bring': { costs: true, page: BRING, actions: { default: BRING } },
	'/(shop)/cases/new': { page: 'desk', actions: { default: 'desk' } },
	'/(shop)/closed': PAGE,
	'/(shop)/codes/[code]': PAGE,
	'/(shop)/codes/[code]/write': { page: OWN_WORDS, actions: { default: OWN_WORDS } },
	'/(shop)/customers': { page: 'member', actions: { default: 'desk' } },
	'/(shop)/customers/[id]': {
		page: 'member',
		actions: { change: 'desk', forget: lead('A lead takes a customer out.') }
	},
	'/(shop)/customers/find': { GET: 'member' },
	'/(shop)/decode': PAGE,
	'/(shop)/papers': { page: MONEY, actions: { save: MONEY, logo: MONEY, noLogo: MONEY } },
	'/(shop)/papers/logo': { GET: 'member' },
	'/(shop)/vehicles/find': { GET: 'member' },
	'/(shop)/vehicles/[id]': { page: 'member', actions: { default: 'desk' } },
	'/(shop)/waiting': PAGE,
	'/(shop)/figures': PAGE,
	'/(shop)/figures/file': { costs: true, GET: 'member' },
	'/(shop)/health': { page: SERVER },
	'/(shop)/library': { page: 'member', actions: { import: PACKS, remove: PACKS } },
	'/(shop)/library/[pack]': PAGE,
	'/(shop)/library/[pack]/file': { GET: 'member' },
	'/(shop)/library/aside': {
		page: 'member',
		actions: { default: lead('A lead looks through what was put aside.') }
	},
	'/(shop)/library/cautions': {
		page: 'member',
		actions: { save: lead('A lead writes the shop’s own cautions.') }
	},
	'/(shop)/library/equipment': {
		page: 'member',
		actions: {
			save: lead('A lead says what the shop can do.'),
			links: lead('A lead says where this shop connects to.'),
			proof: lead('A lead says what proof is asked for.')
		}
	},
	'/(shop)/library/frame-signals': { GET: 'member', POST: 'writer' },
	'/(shop)/library/learned': { page: 'member', actions: { off: LEARNED, again: LEARNED } },
	'/(shop)/library/pack.schema.json': { GET: 'member' },
	'/(shop)/library/reasoning': {
		page: 'member',
		actions: { save: lead('A lead changes these numbers: everybody is advised by them.') }
	},
	'/(shop)/library/shops': { page: 'member', actions: { trust: SHOPS, distrust: SHOPS } },
	'/(shop)/library/vehicles': {
		costs: true,
		page: 'member',
		actions: { default: lead('A lead brings in descriptions: everybody works by them.') }
	},
	'/(shop)/library/vehicles/[id]': {
		page: 'member',
		actions: { roles: DESCRIPTIONS, restore: DESCRIPTIONS },
		PUT: DESCRIPTIONS
	},
	'/(shop)/library/vehicles/[id]/file': { GET: 'member' },
	'/(shop)/me': {
		page: 'member',
		actions: {
			password: 'member',
			digits: 'member',
			factor: 'member',
			confirm: 'member',
			factorOff: 'member',
			units: 'member',
			end: 'member'
		}
	},
	'/(shop)/people': { page: PEOPLE, actions: { invite: PEOPLE, idle: PEOPLE, hours: PEOPLE } },
	'/(shop)/people/[id]': {
		page: PEOPLE,
		actions: {
			rename: PEOPLE,
			role: PEOPLE,
			reset: PEOPLE,
			shutOut: PEOPLE,
			letIn: PEOPLE,
			factorOff: PEOPLE,
			end: PEOPLE
		}
	},
	'/(shop)/people/log': { page: PEOPLE },
	'/(shop)/people/log/file': { costs: true, GET: PEOPLE },
	'/(shop)/people/programs': { page: PEOPLE, actions: { make: PEOPLE, revoke: PEOPLE } },
	'/(shop)/tyres': PAGE,
	'/api/cases': FILE,
	'/api/openapi.json': FILE,
	'/cases/[id]': PAGE,
	'/cases/[id]/bundle.zip': { ...FILE, costs: true },
	'/cases/[id]/case.json': FILE,
	'/cases/[id]/comeback': { POST: 'desk' },
	'/cases/[id]/entries': ENTRIES,
	'/cases/[id]/hand-over': {
		page: 'member',
		actions: {
			sign: lead('Only a lead signs a case off.'),
			unproven: lead('Only a lead closes a case.'),
			release: lead('Only a lead releases what stands.'),
			comeback: 'desk'
		}
	},
	'/cases/[id]/listen': {
		page: 'member',
		actions: {
			complaint: 'desk',
			customer: 'desk',
			vehicle: 'desk',
			lamps: 'desk',
			work: 'desk',
			tyres: 'desk'
		}
	},
	'/cases/[id]/measure': PAGE,
	'/cases/[id]/measure/halve': PAGE,
	'/cases/[id]/measure/look': PAGE,
	'/cases/[id]/measure/photo': EVIDENCE_FILE,
	'/cases/[id]/measure/photo/[photo]': FILE,
	'/cases/[id]/measure/provoke': PAGE,
	'/cases/[id]/measure/read': { POST: 'writer' },
	'/cases/[id]/measure/scope': PAGE,
	'/cases/[id]/measure/scope/[capture]': PAGE,
	'/cases/[id]/measure/scope/[capture]/csv': FILE,
	'/cases/[id]/measure/scope/[capture]/samples': FILE,
	'/cases/[id]/measure/scope/import': EVIDENCE_FILE,
	'/cases/[id]/measure/scope/take': { POST: 'writer' },
	'/cases/[id]/measure/substitute': PAGE,
	'/cases/[id]/measure/swap': PAGE,
	'/cases/[id]/mend': { page: 'member', actions: { repair: 'writer', note: 'writer' } },
	'/cases/[id]/mend/calibrate': {
		page: 'member',
		actions: { hand: 'writer', waive: lead('Only a lead lets a calibration go.') }
	},
	'/cases/[id]/mend/fit': PAGE,
	'/cases/[id]/mend/estimate': PAGE,
	'/cases/[id]/mend/plan': PAGE,
	'/cases/[id]/prove': {
		page: 'member',
		actions: {
			cleared: 'writer',
			key: 'writer',
			lamps: 'writer',
			drive: 'writer',
			returns: 'writer',
			answer: 'writer',
			letGo: lead('Only a lead lets a part of the proof go.')
		}
	},
	'/cases/[id]/prove/drive': PAGE,
	'/cases/[id]/read': { page: 'member', actions: { address: 'writer' } },
	'/cases/[id]/read/find': {
		page: 'member',
		actions: { look: 'writer', use: 'writer', fromLog: 'writer', describe: 'writer' }
	},
	'/cases/[id]/read/lamp': PAGE,
	'/cases/[id]/read/line/[entry]/[address]': PAGE,
	'/cases/[id]/read/log/[entry]': PAGE,
	'/cases/[id]/read/log/[entry]/file': {
		costs: true,
		GET: 'member',
		PUT: 'writer',
		token: { GET: 'read', PUT: 'add' }
	},
	'/cases/[id]/read/other': { page: 'member', actions: { grow: 'writer', save: 'writer' } },
	'/cases/[id]/reason': {
		page: 'member',
		actions: { policy: lead('A lead decides how sure the shop wants to be.') }
	},
	'/cases/[id]/reason/alike': PAGE,
	'/cases/[id]/reason/why': { ...FILE, costs: true },
	'/cases/[id]/report.pdf': { ...FILE, costs: true },
	'/cases/[id]/stand-in': { GET: 'member', POST: 'writer' },
	'/cases/[id]/vehicle': { page: 'member', PUT: 'writer' },
	'/cases/[id]/watch': PAGE,
	'/cases/[id]/watch/[recording]': PAGE,
	'/cases/[id]/watch/[recording]/csv': FILE,
	'/cases/[id]/watch/[recording]/samples': FILE,
	'/cases/[id]/watch/bay': PAGE,
	'/cases/[id]/watch/import': {
		costs: true,
		GET: 'member',
		POST: 'writer',
		token: { GET: 'read', POST: 'add' }
	},
	'/cases/[id]/watch/road': PAGE,
	'/cases/[id]/watch/tyres': PAGE,
	'/cases/[id]/work': { POST: 'writer' },
	'/decoder': { GET: 'member', POST: 'member' },
	'/first-lead': { page: 'anybody', actions: { default: 'anybody' } },
	'/healthz': { GET: 'anybody' },
	'/join': { page: 'anybody', actions: { default: 'anybody' } },
	'/locked': { page: 'locked', actions: { lock: 'locked', open: 'locked' } },
	'/metrics': { GET: SERVER, token: { GET: 'read' } },
	'/page-trouble': { POST: 'member' },
	'/preferences': { page: 'member', actions: { theme: 'member', keys: 'member' } },
	'/readyz': { GET: 'anybody' },
	'/sign-in': { page: 'anybody', actions: { in: 'anybody', out: 'anybody' } },
	'/sign-in/code': { page: 'anybody', actions: { default: 'anybody' } },
	'/stream': { GET: 'member' }
};
