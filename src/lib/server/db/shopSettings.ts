import { eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import { shopFunctions } from '../../../../library/calibrations';
import { exposures } from '../../../../library/safety';
import { Terms } from '../../case/entries/estimate/payload';
import { TARGETS } from '../../case/entries/returns-told/payload';
import type { Database } from './open';
import { adminAct, shopSetting } from './schema';
import type { Author } from './threads';
import { actOf } from '../accounts/adminLog';
import { Choice } from '../accounts/ownUnits';

/** What a shop is called on paper that has not said its name. */
export const UNNAMED_SHOP = 'This workshop';

/** What whoever runs the server allows until a lead decides: hosts, comma separated. */
const fromEnvironment = (): string[] =>
	(process.env.JALDI_LINK_HOSTS ?? '')
		.split(',')
		.map((host) => host.trim())
		.filter(Boolean);

/** Signs of a mark that fits a paper. */
const LONGEST_LOGO = 400_000;

/** Settings of the shop: the shape of each, and what holds until a lead decides. */
const SETTINGS = {
	/** From track record (0) to prove first (1). */
	proving: z.number().min(0).max(1).catch(0.8),
	/** Hour of the day at which work begins. */
	opensAtHour: z.number().min(0).max(24).catch(8),
	/** Hour of the day at which work ends. */
	closesAtHour: z.number().min(0).max(24).catch(17),
	/** Residual chance below which a fault that comes and goes is called gone. */
	residualTarget: z.union(TARGETS.map((target) => z.literal(target))).catch(0.05),
	/** Minutes without a touch after which a screen locks itself; 0 = never. */
	lockAfterMinutes: z.number().int().min(0).max(240).catch(0),
	/** The shop's name on paper. */
	shopName: z.string().trim().min(1).max(80).catch(UNNAMED_SHOP),
	/** Where the shop is and how it is reached, on paper. */
	shopAddress: z.string().trim().max(300).catch(''),
	/** What stands at the foot of every paper. */
	paperFooter: z.string().trim().max(300).catch(''),
	/** The shop's mark on paper, a PNG in base 64; empty = none. */
	shopLogo: z.base64().max(LONGEST_LOGO).catch(''),
	/** What work is asked for by; null until a lead has said. */
	terms: Terms.nullable().catch(null),
	/** How distances, pressures and the like stand on papers, and before everybody who chose nothing else. */
	units: Choice.catch({ distance: 'km', pressure: 'kPa', torque: 'N·m', temperature: '°C', length: 'mm' }),
	/** Whether a lead may sign a case whose last repair is their own. */
	signOwnRepair: z.boolean().catch(false),
	/** Words that the shop adds to what a step exposes, by exposure. */
	cautions: z
		.record(
			z.string().refine((id) => exposures.has(id), 'no such exposure'),
			z.string().trim().min(1).max(300)
		)
		.catch({}),
	/** Where the server may connect to vehicles: hosts, networks and serial devices, one each. */
	linkRules: z
		.array(z.string().trim().max(100))
		.max(50)
		.catch(['127.0.0.1', ...fromEnvironment()]),
	/** Who is not here on a day, by account; of any other day it says nothing. */
	notHere: z
		.object({ day: z.string().max(10), ids: z.array(z.string().max(60)).max(500) })
		.catch({ day: '', ids: [] }),
	/** Functions that this shop can do itself. */
	equipment: z
		.array(z.string().refine((id) => shopFunctions.has(id), 'no such function'))
		.catch(['routines', 'coding', 'charger', 'pump-bleed', 'closed-area', 'tyre-monitoring', 'press'])
} as const;
type Settings = { [N in keyof typeof SETTINGS]: z.output<(typeof SETTINGS)[N]> };
type Name = keyof Settings;

export class ShopSettings {
	private readonly named;

	constructor(private readonly db: Database) {
		this.named = db
			.select()
			.from(shopSetting)
			.where(eq(shopSetting.name, sql.placeholder('name')))
			.prepare();
	}

	async read<N extends Name>(name: N): Promise<Settings[N]> {
		const [row] = await this.named.all({ name });
		return SETTINGS[name].parse(row?.value) as Settings[N];
	}

	/** Throws a ZodError for a value that the setting cannot have. */
	async write<N extends Name>(name: N, value: Settings[N], by: Author, now = new Date()): Promise<void> {
		const from = await this.read(name);
		const kept = {
			value: SETTINGS[name].unwrap().parse(value),
			changedBy: by.id,
			changedAt: now.toISOString()
		};
		const write = this.db
			.insert(shopSetting)
			.values({ name, ...kept })
			.onConflictDoUpdate({ target: shopSetting.name, set: kept });
		if (JSON.stringify(from) === JSON.stringify(kept.value)) await write;
		else
			await this.db.batch([
				write,
				this.db
					.insert(adminAct)
					.values(
						actOf(
							by,
							'setting-changed',
							{ of: name, ...(name === 'shopLogo' ? {} : { from, to: kept.value }) },
							now
						)
					)
			]);
	}
}
