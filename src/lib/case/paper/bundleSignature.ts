import { z } from 'zod';
import { fail, ok, type Result } from '../../core/result';
import { HASHES_NAME, SIGNATURE_NAME, type BundleFiles } from './bundle';

/**
 * Whose a bundle is: the list of its hashes, signed with the shop's key (Ed25519, RFC 8032). A bundle without a signature says
 * so; what a signature is worth depends on whether the reader knows the key.
 */

const ALGORITHM = 'Ed25519';
const Base64 = z
	.string()
	.max(400)
	.regex(/^[A-Za-z0-9+/]+=*$/);
const SignatureFile = z.object({ algorithm: z.literal(ALGORITHM), publicKey: Base64, signature: Base64 });

/** A key pair as it is kept: SPKI and PKCS #8, base64. */
export interface KeyPair {
	publicKey: string;
	privateKey: string;
}

const toBase64 = (bytes: ArrayBuffer): string => btoa(String.fromCharCode(...new Uint8Array(bytes)));
const fromBase64 = (text: string): Uint8Array<ArrayBuffer> =>
	Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0));

export async function makeKeyPair(): Promise<KeyPair> {
	const pair = (await crypto.subtle.generateKey(ALGORITHM, true, ['sign', 'verify'])) as CryptoKeyPair;
	return {
		publicKey: toBase64(await crypto.subtle.exportKey('spki', pair.publicKey)),
		privateKey: toBase64(await crypto.subtle.exportKey('pkcs8', pair.privateKey))
	};
}

/** @param hashes the bundle's list of hashes, byte for byte. @returns what goes into `signature.json` */
export async function signBundle(
	hashes: Uint8Array<ArrayBuffer>,
	{ publicKey, privateKey }: KeyPair
): Promise<Uint8Array> {
	const key = await crypto.subtle.importKey('pkcs8', fromBase64(privateKey), ALGORITHM, false, ['sign']);
	const signature = toBase64(await crypto.subtle.sign(ALGORITHM, key, hashes));
	return new TextEncoder().encode(
		`${JSON.stringify({ algorithm: ALGORITHM, publicKey, signature }, null, '\t')}\n`
	);
}

/** The public key that signed a bundle; null where it carries no signature. The error says why a signature does not hold. */
export async function signerOf(files: BundleFiles): Promise<Result<string | null>> {
	const text = files.get(SIGNATURE_NAME);
	if (!text) return ok(null);
	try {
		const told = SignatureFile.safeParse(JSON.parse(new TextDecoder().decode(text)));
		if (!told.success) return fail(`${SIGNATURE_NAME} is no signature that can be read`);
		const { publicKey, signature } = told.data;
		const key = await crypto.subtle.importKey('spki', fromBase64(publicKey), ALGORITHM, false, ['verify']);
		const hashes = new Uint8Array(files.get(HASHES_NAME) ?? new Uint8Array());
		return (await crypto.subtle.verify(ALGORITHM, key, fromBase64(signature), hashes))
			? ok(publicKey)
			: fail(`${SIGNATURE_NAME} is not the signature of what is in it`);
	} catch {
		return fail(`${SIGNATURE_NAME} is no signature that can be read`);
	}
}

/** A key's short name for people: the first signs of it that differ between keys. */
export const keyName = (publicKey: string): string => publicKey.slice(16, 28);
