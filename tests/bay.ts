import AxeBuilder from '@axe-core/playwright';
import { expect, test as base, type BrowserContext, type Page } from '@playwright/test';
import { ulid } from 'ulid';
import { vehicleTypes } from '../library';
import { BenchHost } from '../src/lib/bench/net/host';
import type { BenchFault } from '../src/lib/bench/faults/benchFault';
import type { EntryKind, PayloadOf } from '../src/lib/case/entries/entry';
import { ENTRY_VERSION } from '../src/lib/case/entries/entryVersion';
import { STRAIGHT_DRIVE } from '../src/lib/bench/motion';
import { SIGNED_IN } from './where';

/** A vehicle of the test's own, on the bench. */
export interface Bay {
	host: BenchHost;
	link: string;
	panel: string;
}

type Fixtures = {
	/** Puts a vehicle with these faults on the bench, key on. */
	bay: (...faults: BenchFault[]) => Promise<Bay>;
	/** The same for a livestock trailer. */
	trailer: (...faults: BenchFault[]) => Promise<Bay>;
	/** The same for an estate whose sensors speak in pulses. */
	estate: (...faults: BenchFault[]) => Promise<Bay>;
	/** A page of its own on which somebody is signed in, closed with the test. */
	as: (who: keyof typeof SIGNED_IN) => Promise<Page>;
	/** The same for a pick-up that tells by its lamp alone. */
	pickUp: (...faults: BenchFault[]) => Promise<Bay>;
};

export const VIN = 'BRM16SCH0P0004183';
/** It tells no number by a link. */
const PICK_UP_VIN = '11111111111111111';
const ESTATE_VIN = '22222222222222222';
const TRAILER_VIN = 'HXDR2AXL0T0000071';

export const test = base.extend<Fixtures>({
	storageState: SIGNED_IN.ana,
	page: async ({ page }, use) => {
		patient(page);
		await use(page);
	},
	as: async ({ browser }, use) => {
		const contexts: BrowserContext[] = [];
		await use(async (who) => {
			const context = await browser.newContext({ storageState: SIGNED_IN[who] });
			contexts.push(context);
			return patient(await context.newPage());
		});
		await Promise.all(contexts.map((context) => context.close()));
	},
	bay: async ({ page: _page }, use) => withVehicles('brindle-marlow-16', VIN, use),
	trailer: async ({ page: _page }, use) => withVehicles('hexley-drover', TRAILER_VIN, use),
	estate: async ({ page: _page }, use) => withVehicles('norvane-lichen', ESTATE_VIN, use),
	pickUp: async ({ page: _page }, use) => withVehicles('norvane-wold', PICK_UP_VIN, use)
});

async function withVehicles(
	typeId: string,
	vin: string,
	use: (put: (...faults: BenchFault[]) => Promise<Bay>) => Promise<void>
): Promise<void> {
	const hosts: BenchHost[] = [];
	await use(async (...faults) => {
		const type = vehicleTypes.get(typeId);
		if (!type) throw new Error(`${typeId} is missing from the library`);
		const host = new BenchHost({ type, vin, odometerKm: 50_000, faults });
		hosts.push(host);
		host.act({ do: 'key', to: 'on' });
		host.vehicle.advance(5);
		const { linkPort, panelPort } = await host.start();
		return { host, link: `127.0.0.1:${linkPort}`, panel: `127.0.0.1:${panelPort}` };
	});
	await Promise.all(hosts.map((host) => host.stop()));
}

/** Makes a page wait, wherever it goes, until its scripts have taken it over, as a person's eyes and hands do. */
export function patient(page: Page): Page {
	const settled =
		(act: (...args: never[]) => Promise<unknown>) =>
		async (...args: never[]) => {
			const result = await act(...args);
			await page.locator('html[data-ready]').waitFor({ state: 'attached' });
			return result;
		};
	page.goto = settled(page.goto.bind(page) as never) as never;
	page.reload = settled(page.reload.bind(page) as never) as never;
	return page;
}

/** Drives the bench vehicle at once, as a customer would have before coming. */
export function driveNow({ host }: Bay): void {
	host.vehicle.drive(STRAIGHT_DRIVE);
	host.vehicle.advance(STRAIGHT_DRIVE.reduce((sum, leg) => sum + leg.overS, 2));
}

export function cycleKeyNow({ host }: Bay): void {
	host.act({ do: 'key', to: 'off' });
	host.vehicle.advance(10);
	host.act({ do: 'key', to: 'on' });
	host.vehicle.advance(5);
}

/** Opens a case for a vehicle that answers at these addresses. */
export async function openCase(
	page: Page,
	nickname: string,
	link: string,
	panel = '',
	typeId = 'brindle-marlow-16'
): Promise<void> {
	await page.goto('/cases/new');
	await page.getByText('It is of a type that is described already').click();
	await page.getByLabel('Which type?').selectOption(typeId);
	await page.getByLabel('What do you call it?').fill(nickname);
	await page.getByLabel('Interface address').fill(link);
	if (panel) {
		await page.getByText('It is a simulated vehicle').click();
		await page.getByLabel('Control panel of the simulator').fill(panel);
	}
	await page.getByRole('button', { name: 'Open the case' }).click();
	await expect(page.getByRole('heading', { name: 'Complaint' })).toBeVisible();
}

export async function goTo(page: Page, station: string): Promise<void> {
	await page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: station }).click();
	await expect(page).toHaveURL(new RegExp(`${station.toLowerCase().replace(' ', '-')}$`));
}

export async function scan(page: Page): Promise<void> {
	await goTo(page, 'Read');
	await page.getByRole('button', { name: /Scan/ }).click();
	await expect(page.getByText('All 9 modules asked; saved to the case.')).toBeVisible();
}

export async function writeRepair(page: Page, title: string, corner: string): Promise<void> {
	await goTo(page, 'Mend');
	await page.getByLabel('Done', { exact: true }).fill(title);
	await page.getByLabel('Where').selectOption(corner);
	await page.getByRole('button', { name: 'Save the repair' }).click();
	await expect(page.getByRole('heading', { name: 'One repair is written down' })).toBeVisible();
}

export async function clearAll(page: Page): Promise<void> {
	await goTo(page, 'Prove');
	await page.getByRole('button', { name: 'Clear all 9 modules' }).click();
	await page.getByRole('button', { name: 'Clear all 9 modules now' }).click();
	await expect(page.getByText('9 of 9 modules cleared; saved to the case.')).toBeVisible();
}

export async function confirmKey(page: Page): Promise<void> {
	await page.getByRole('button', { name: 'The key is on again: check' }).click();
	await expect(page.getByText(/Key cycle \d+ counted by the gateway/)).toBeVisible();
}

export async function readAgain(page: Page): Promise<void> {
	await page.getByRole('button', { name: 'Read every module' }).click();
	await expect(page.getByText('All 9 modules asked; saved to the case.')).toBeVisible();
}

/** The verdict beside a code, by module. */
export const verdictOf = (page: Page, code: string, module: string) =>
	page.getByRole('article', { name: `${code} in ${module}` }).locator('[data-verdict]');

/** Puts an entry on the case that is open, as its pages do. */
export async function put<K extends EntryKind>(page: Page, kind: K, payload: PayloadOf<K>): Promise<void> {
	const { pathname, origin } = new URL(page.url());
	const response = await page.request.post(`/cases/${pathname.split('/')[2]}/entries`, {
		headers: { origin },
		data: {
			id: ulid(),
			kind,
			version: ENTRY_VERSION,
			observedAt: new Date().toISOString(),
			payload,
			supersedes: null
		}
	});
	expect(response.ok(), await response.text()).toBe(true);
}

/** Nothing on the page keeps anybody out. */
export const accessible = async (page: Page) =>
	expect(
		// A message that fades in or out has any contrast for a moment.
		(await new AxeBuilder({ page }).exclude('[data-sonner-toaster]').analyze()).violations.map(
			({ id, nodes }) => [id, nodes[0]?.html]
		)
	).toEqual([]);

export { expect };
