import { spawn, type ChildProcess } from "node:child_process";
import { X509Certificate } from "node:crypto";
import { copyFileSync, existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import { isIP } from "node:net";
import { join } from "node:path";
import { setTimeout } from "node:timers/promises";
import { needCaddy } from "./packages.ts";

/** Names that no public authority certifies: those of a house network, and addresses. */
const isPrivateName = (host: string) =>
  isIP(host) !== 0 || !host.includes(".") || /\.(local|lan|home|internal|localhost|test)$/i.test(host);

export interface Front {
  /** Where the desk is reached. */
  readonly publicUrl: string;
  /** Page that helps a phone trust a house network's own authority; null where the certificate is public. */
  readonly trustUrl: string | null;
  /** SHA-256 of that authority, to be compared. */
  readonly fingerprint: string | null;
  stop(): Promise<void>;
}

export interface FrontOptions {
  /** The name or address it is reached by. */
  readonly host: string;
  /** Port of the desk on loopback. */
  readonly port: number;
  /** Folder of certificates and of the page about trust. */
  readonly folder: string;
  /** Ports of HTTPS and of the page about trust, where the authority is its own. */
  readonly httpsPort: number;
  readonly trustPort: number;
}

const trustPage = (publicUrl: string, fingerprint: string) => `<!doctype html>
<html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width,initial-scale=1">
<title>Trust this desk - Barometron</title>
<style>body{font:1.05rem/1.5 sans-serif;max-width:34rem;margin:2rem auto;padding:0 1rem;background:#f6f3ea;color:#1d2a2a}
a{color:#0f5b5b}code{overflow-wrap:anywhere}</style>
<h1>Trust this desk</h1>
<p>The desk speaks HTTPS with a certificate of its own authority. A phone must be told once to trust it; then Ride works there
with and without signal.</p>
<ol>
<li>Compare: the start command printed this fingerprint.<br><code>${fingerprint}</code></li>
<li><a href="/authority.crt" download>Take the authority's certificate</a> and open it. The phone asks where it belongs: as a
certificate authority. On some phones it is then switched on once more in the settings, under trusted certificates.</li>
<li>Open the desk: <a href="${publicUrl}">${publicUrl}</a>, or scan the code that its Phones page shows.</li>
</ol>
<p>Only do this in a network of your own. Remove the certificate when the phone no longer belongs to the desk.</p>
</html>
`;

/**
 * Nobody holds the desk up by being slow: a request's headers and its body are here in time, and a body is handed on only when
 * all of it, or its first megabyte, has come. A photograph over a poor line takes about a minute.
 */
const PATIENCE = `	servers {
		timeouts {
			read_header 10s
			read_body 90s
			idle 2m
		}
		max_header_size 32KB
	}`;

function caddyfile({ host, port, folder, httpsPort, trustPort }: FrontOptions, isPrivate: boolean): string {
  const name = isIP(host) === 6 ? `[${host}]` : host;
  const proxied = `	reverse_proxy 127.0.0.1:${port} {
		header_up Host {http.request.hostport}
		buffer_requests
		max_buffer_size 1MB
	}
	request_body {
		max_size 33MB
	}`;
  if (!isPrivate)
    return `{
	admin off
${PATIENCE}
	storage file_system "${folder}/certificates"
}
${name} {
${proxied}
}
`;
  return `{
	admin off
${PATIENCE}
	auto_https disable_redirects
	skip_install_trust
	default_sni ${name}
	storage file_system "${folder}/certificates"
	pki {
		ca local {
			name "Barometron desk at ${name}"
		}
	}
}
https://${name}:${httpsPort} {
	tls internal
${proxied}
}
http://:${trustPort} {
	root * "${folder}/trust"
	header /authority.crt Content-Type application/x-x509-ca-cert
	file_server
}
`;
}

const PATIENCE_TRIES = 100;

/** The authority's certificate, once it is made; null when it is not in time. */
async function authorityIn(file: string, running: ChildProcess): Promise<string | null> {
  for (let tries = 0; tries < PATIENCE_TRIES && running.exitCode === null; tries += 1) {
    if (existsSync(file)) return readFileSync(file, "utf8");
    await setTimeout(100);
  }
  return null;
}

/** Puts Debian's caddy in front of a desk, with a certificate of a public authority or, for a house network, of its own. */
export async function caddyBefore(options: FrontOptions): Promise<Front> {
  const { host, folder, httpsPort, trustPort } = options;
  const isPrivate = isPrivateName(host);
  const trust = join(folder, "trust");
  mkdirSync(trust, { recursive: true, mode: 0o700 });
  const file = join(folder, "Caddyfile");
  writeFileSync(file, caddyfile(options, isPrivate));
  const running = spawn(needCaddy(), ["run", "--config", file, "--adapter", "caddyfile"], {
    stdio: ["ignore", "ignore", "pipe"],
    env: { PATH: process.env["PATH"] ?? "", HOME: folder, XDG_DATA_HOME: folder, XDG_CONFIG_HOME: folder },
  });
  let said = "";
  running.stderr.on("data", (chunk: Buffer) => {
    said = (said + chunk.toString()).slice(-4000);
  });
  const ended = new Promise<void>((resolve) => running.once("exit", () => resolve()));
  const stop = async () => {
    running.kill("SIGTERM");
    await ended;
  };
  const authority = isPrivate
    ? await authorityIn(join(folder, "certificates", "pki", "authorities", "local", "root.crt"), running)
    : null;
  if (running.exitCode !== null || (isPrivate && authority === null)) {
    await stop();
    throw new Error(`HTTPS could not be set up: ${said.trim().split("\n").at(-1) ?? "caddy ended"}`);
  }
  const name = isIP(host) === 6 ? `[${host}]` : host;
  const publicUrl = isPrivate && httpsPort !== 443 ? `https://${name}:${httpsPort}` : `https://${name}`;
  if (authority === null) return { publicUrl, trustUrl: null, fingerprint: null, stop };
  const fingerprint = new X509Certificate(authority).fingerprint256;
  copyFileSync(
    join(folder, "certificates", "pki", "authorities", "local", "root.crt"),
    join(trust, "authority.crt"),
  );
  writeFileSync(join(trust, "index.html"), trustPage(publicUrl, fingerprint));
  return { publicUrl, trustUrl: `http://${name}:${trustPort}`, fingerprint, stop };
}
