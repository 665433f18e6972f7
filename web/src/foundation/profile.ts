/** Whether this is the demo, which offers its people on the sign-in page. */
export const isDemo = document.querySelector<HTMLMetaElement>('meta[name=polycline-profile]')?.content === 'demo'

/** What styles made by scripts must carry. */
export const nonce = document.querySelector<HTMLMetaElement>('meta[property=csp-nonce]')?.nonce ?? ''
