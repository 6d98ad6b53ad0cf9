// How long an answer to a wrong password takes, where somebody has the address and where nobody has. Asks a running
// `./lantern up` with the demo: node bench/sign-in/sign-in.mjs http://127.0.0.1:4700
const site = process.argv[2] ?? 'http://127.0.0.1:4700';
const known = ['marit', 'keziah', 'anselm', 'ivo', 'rosalind'].map((name) => `${name}@brackwater.example`);
const EACH = 3;

const { token, cookie } = await begin();
const times = { known: [], unknown: [] };
for (let round = 0; round < EACH; round++) {
    for (const email of known) {
        times.known.push(await tryOnce(email));
        times.unknown.push(await tryOnce(`nobody${String(round)}-${email}`));
    }
}

for (const [who, taken] of Object.entries(times)) {
    taken.sort((a, b) => a - b);
    const at = (part) => taken[Math.floor((taken.length - 1) * part)].toFixed(1);
    console.log(`${who.padEnd(8)} ${String(taken.length)} tries: median ${at(0.5)} ms, from ${at(0.1)} to ${at(0.9)}`);
}

async function begin() {
    const answer = await fetch(`${site}/api/token`);
    const { token } = await answer.json();
    return {
        token,
        cookie: answer.headers
            .getSetCookie()
            .map((each) => each.split(';')[0])
            .join('; '),
    };
}

async function tryOnce(email) {
    const began = performance.now();
    const answer = await fetch(`${site}/api/sign-in`, {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'X-Lantern-Token': token, cookie },
        body: JSON.stringify({ email, password: 'not the password' }),
    });
    await answer.text();
    if (answer.status !== 401)
        throw new Error(`${email}: ${String(answer.status)}; wait a few minutes between two runs`);
    return performance.now() - began;
}
