import { clearAll, expect, goTo, openCase, scan, test } from './bay';
import { reply, stranger } from './stranger';
import { benchFault } from '../src/lib/bench/faults/benchFault';

test('nothing listens: the person is told, nothing is saved, and the address can be put right', async ({
	page,
	bay
}) => {
	const { server, link } = await stranger(() => undefined);
	server.close();
	await openCase(page, 'unplugged', link);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(
		page.getByText(/No vehicle answers there\. .* Nothing was read and nothing was changed\./)
	).toBeVisible();
	await expect(page.getByRole('heading', { name: 'Nothing is read yet' })).toBeVisible();
	await page.getByRole('button', { name: 'change' }).click();
	await page.getByLabel('Interface address').fill('nowhere');
	await page.getByRole('button', { name: 'Save the address' }).click();
	await expect(page.getByText('Write it as host:port')).toBeVisible();
	const vehicle = await bay();
	await page.getByLabel('Interface address').fill(vehicle.link);
	await page.getByRole('button', { name: 'Save the address' }).click();
	await expect(page.getByText(`Interface at ${vehicle.link}`)).toBeVisible();
	await scan(page);
});

test('the line is cut in the middle of an answer: the partial scan is kept and says so', async ({ page }) => {
	const { server, link } = await stranger((socket, asked, count) => {
		if (count < 2) socket.write(reply(asked, (asked[12] ?? 0) + 0x40, 0));
		else {
			socket.write(reply(asked, 0x59, 0x02, 0xff, 0x40, 0x35).subarray(0, 13));
			socket.end();
		}
	});
	await openCase(page, 'cut short', link);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(
		page.getByText('closed the connection. 1 of 9 modules were reached; that much is saved, marked partial.')
	).toBeVisible();
	await page.reload();
	await expect(page.getByText('Partial.', { exact: true })).toBeVisible();
	await goTo(page, 'Prove');
	await expect(page.getByRole('button', { name: /^Clear all/ })).toBeDisabled();
	await expect(
		page.getByText('Nothing is cleared before it is recorded: read every module first.')
	).toBeVisible();
	server.close();
});

test('garbage and wrong lengths are named, not guessed', async ({ page }) => {
	const { server, link } = await stranger((socket, asked) => {
		const service = asked[12] ?? 0;
		if (service === 0x19) socket.write(reply(asked, 0x59, asked[13] ?? 0, 0xff, 0x40, 0x35, 0x13));
		else if (asked[11] === 0x20) socket.write(Buffer.alloc(40, 0xee));
		else socket.write(reply(asked, service + 0x40, 0));
	});
	await openCase(page, 'garbled', link);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(
		page.getByText('Its codes could not be read: 3 bytes of codes is no multiple of 4').first()
	).toBeVisible();
	await expect(page.getByText(/The line carries bytes that are no diagnostic header/).first()).toBeVisible();
	server.close();
});

test('a silent module is a finding', async ({ page, bay }) => {
	const { link } = await bay(benchFault('module-silent', 'cluster'));
	await openCase(page, 'dark dash', link);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(
		page.getByText('All 9 modules asked; saved to the case. Silent: Instrument cluster.')
	).toBeVisible();
	await expect(page.getByRole('region', { name: 'Instrument cluster' })).toContainText(
		'A silent module is a finding'
	);
	await expect(page.getByRole('heading', { name: /^1 code in 1 module.*, 1 silent$/ })).toBeVisible();
});

test('a sleeping vehicle is told from silent modules: the scan is kept and marked partial', async ({
	page,
	bay
}) => {
	const { host, link } = await bay();
	await openCase(page, 'dozing bus', link);
	await goTo(page, 'Read');
	host.act({ do: 'key', to: 'off' });
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(page.getByText('Only the gateway answers: the key is off.').first()).toBeVisible();
	await page.reload();
	await expect(page.getByText('Partial.', { exact: true })).toBeVisible();
	await expect(page.getByRole('region', { name: 'Gateway' })).toContainText('answers, no codes');
});

test('a scan can be cancelled and keeps what it has; a second one waits its turn', async ({ page, bay }) => {
	const answering: (() => void)[] = [];
	const { server, link } = await stranger((socket, asked, count) => {
		const send = () => socket.write(reply(asked, (asked[12] ?? 0) + 0x40, asked[13] ?? 0, 0xff));
		if (count < 5) send();
		else answering.push(send);
	});
	await bay();
	await openCase(page, 'slow bus', link);
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(page.getByRole('button', { name: 'Scan every module' })).toBeDisabled();
	const second = await page.request.post(`${page.url().replace(/\/read$/, '')}/work`, {
		data: { do: 'scan', entryId: '01JDFA4Z0000000000000000ZZ' }
	});
	expect(second.status()).toBe(409);
	expect(await second.json()).toEqual({
		message: 'Ana is at this vehicle now (reading its modules). Wait until that is done.'
	});
	await page.getByRole('button', { name: 'Cancel' }).click();
	await expect(page.getByText(/It was cancelled\. \d of 9 modules were reached/)).toBeVisible();
	server.close();
});

test('a clear while one runs is refused, and so is one before a new reading', async ({ page, bay }) => {
	const { link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'twice cleared', link);
	await scan(page);
	await goTo(page, 'Prove');
	const url = `${page.url().replace(/\/prove$/, '')}/work`;
	const post = (entryId: string) => page.request.post(url, { data: { do: 'clear', entryId, only: null } });
	const answers = await Promise.all([post('01JDFA4Z0000000000000000AA'), post('01JDFA4Z0000000000000000AB')]);
	expect(answers.map((a) => a.status()).sort()).toEqual([200, 409]);
	await expect(page.getByText('9 of 9 modules cleared; saved to the case.')).toBeVisible();
	await expect(
		page.getByText('Read again first: what has come back since the last clear is not recorded yet.')
	).toBeVisible();
	const sentAgain = await post('01JDFA4Z0000000000000000AA');
	expect(sentAgain.status()).toBeLessThan(410);
	await expect(
		page.getByRole('complementary', { name: 'Thread' }).getByText('Cleared in 9 modules')
	).toHaveCount(1);
});

test('the interface pulled and plugged in again: the next scan is whole', async ({ page, bay }) => {
	const { host, link } = await bay(benchFault('lead-open', 'rear-left'));
	await openCase(page, 'loose plug', link);
	host.act({ do: 'plug', in: false });
	await goTo(page, 'Read');
	await page.getByRole('button', { name: 'Scan every module' }).click();
	await expect(page.getByText(/Nothing was read and nothing was changed/)).toBeVisible();
	host.act({ do: 'plug', in: true });
	await scan(page);
	await clearAll(page);
});
