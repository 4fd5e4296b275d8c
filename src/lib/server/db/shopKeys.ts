import { eq } from 'drizzle-orm';
import { makeKeyPair, type KeyPair } from '../../case/paper/bundleSignature';
import type { Database } from './open';
import { adminAct, shopKey, trustedShop } from './schema';
import type { Author } from './threads';
import { actOf } from '../accounts/adminLog';

const ONLY = 1;

/** Whose key a bundle was signed with, as this shop knows it. */
export type Signer =
	{ kind: 'own' } | { kind: 'trusted'; name: string } | { kind: 'stranger' } | { kind: 'nobody' };

/** The key that this shop signs its bundles with, and those of shops that it trusts. */
export class ShopKeys {
	constructor(private readonly db: Database) {}

	/** Made the first time it is asked for. */
	async own(): Promise<KeyPair> {
		const [known] = await this.db.select().from(shopKey).where(eq(shopKey.id, ONLY));
		if (known) return known;
		await this.db
			.insert(shopKey)
			.values({ id: ONLY, ...(await makeKeyPair()), madeAt: new Date().toISOString() })
			.onConflictDoNothing();
		return this.own();
	}

	async trusted(): Promise<(typeof trustedShop.$inferSelect)[]> {
		return this.db.select().from(trustedShop).orderBy(trustedShop.name).limit(500);
	}

	async trust(publicKey: string, name: string, by: Author): Promise<void> {
		const told = { name, trustedBy: by.name, trustedAt: new Date().toISOString() };
		await this.db.batch([
			this.db
				.insert(trustedShop)
				.values({ publicKey, ...told })
				.onConflictDoUpdate({ target: trustedShop.publicKey, set: told }),
			this.db.insert(adminAct).values(actOf(by, 'shop-trusted', { of: name, to: publicKey }))
		]);
	}

	async distrust(publicKey: string, by: Author): Promise<void> {
		const [known] = await this.db.select().from(trustedShop).where(eq(trustedShop.publicKey, publicKey));
		if (!known) return;
		await this.db.batch([
			this.db.delete(trustedShop).where(eq(trustedShop.publicKey, publicKey)),
			this.db.insert(adminAct).values(actOf(by, 'shop-distrusted', { of: known.name, to: publicKey }))
		]);
	}

	/** @param publicKey null = it is not signed */
	async signer(publicKey: string | null): Promise<Signer> {
		if (publicKey === null) return { kind: 'nobody' };
		if ((await this.own()).publicKey === publicKey) return { kind: 'own' };
		const [known] = await this.db.select().from(trustedShop).where(eq(trustedShop.publicKey, publicKey));
		return known ? { kind: 'trusted', name: known.name } : { kind: 'stranger' };
	}
}
