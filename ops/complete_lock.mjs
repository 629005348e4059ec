// npm leaves out of the lock the optional packages of other systems that its registry did not serve,
// and `npm ci` then refuses the lock. This writes the missing entries back as stubs.
import { readFileSync, writeFileSync } from "node:fs";

const path = process.argv[2];
const lock = JSON.parse(readFileSync(path, "utf8"));
const system = /(android|darwin|win32|linux|freebsd|openbsd|wasm32)-?(arm64|x64|arm|ia32|wasi)?/;
for (const [where, entry] of Object.entries(lock.packages)) {
  for (const [name, version] of Object.entries(entry.optionalDependencies ?? {})) {
    if (lock.packages[`${where}/node_modules/${name}`] || lock.packages[`node_modules/${name}`]) continue;
    const [, os, cpu] = name.match(system) ?? [];
    lock.packages[`node_modules/${name}`] = {
      version,
      optional: true,
      ...(entry.dev ? { dev: true } : {}),
      cpu: [os === "wasm32" ? "wasm32" : (cpu ?? "x64")],
      ...(os && os !== "wasm32" ? { os: [os] } : {}),
      ...(name.includes("musl") ? { libc: ["musl"] } : {}),
    };
  }
}
lock.packages = Object.fromEntries(Object.entries(lock.packages).sort(([a], [b]) => (a < b ? -1 : 1)));
writeFileSync(path, `${JSON.stringify(lock, null, 2)}\n`);
