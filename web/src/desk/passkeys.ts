/** Whether this browser has passkeys, and reads what is asked of them as WebAuthn writes it. */
export function passkeysHere(): boolean {
  return 'PublicKeyCredential' in window && typeof PublicKeyCredential.parseCreationOptionsFromJSON === 'function'
}

/** What a device says; undefined when nobody gave it. */
async function said(asked: Promise<Credential | null>): Promise<string | undefined> {
  try {
    const credential = await asked
    return credential ? JSON.stringify((credential as PublicKeyCredential).toJSON()) : undefined
  } catch {
    return undefined
  }
}

/** Has a device make a passkey. */
export function makePasskey(options: string): Promise<string | undefined> {
  return said(navigator.credentials.create({ publicKey: PublicKeyCredential.parseCreationOptionsFromJSON(JSON.parse(options)) }))
}

/** Has a device sign with a passkey it holds. */
export function givePasskey(options: string): Promise<string | undefined> {
  return said(navigator.credentials.get({ publicKey: PublicKeyCredential.parseRequestOptionsFromJSON(JSON.parse(options)) }))
}
