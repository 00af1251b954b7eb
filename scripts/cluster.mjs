// A Galera cluster of private MariaDBs on loopback: what the tests and the bench compare one database with.
import { spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createConnection } from 'mysql2/promise';
import { freePort, startDatabase, until } from './database.mjs';
import { findProgram } from './requirements.mjs';

const PROVIDER = '/usr/lib/galera/libgalera_smm.so';
/** On loopback a node that says nothing for a moment is gone. */
const SOON =
  'evs.keepalive_period=PT0.3S;evs.suspect_timeout=PT2S;evs.inactive_timeout=PT4S;evs.inactive_check_period=PT0.3S';
const JOIN_MS = 60_000;

/** Whether this machine has what a cluster needs. */
export const hasGalera = () => existsSync(PROVIDER);

/**
 * Starts nodes in folders of their own. Returns them and a function that stops all. Each has its `url` and can be killed, started again, and
 * cut off from the others while its clients still reach it.
 */
export async function startCluster(folder, count) {
  const password = randomBytes(24).toString('hex');
  // Whoever runs a node must reach its folder.
  chmodSync(folder, 0o711);
  const nodes = [];
  for (let index = 0; index < count; index++)
    nodes.push(await nodeAt(join(folder, `node${index + 1}`), password));
  const addresses = nodes.map(({ ports }) => `127.0.0.1:${ports.peers}`).join(',');
  for (const node of nodes) node.settings = settingsOf(node, addresses);
  const [first, ...others] = nodes;
  await start(first, ['--wsrep-new-cluster']);
  for (const other of others) {
    // Who joins takes all data from the others, with the users in them.
    mkdirSync(join(other.folder, 'mariadb'), { mode: 0o700 });
    await start(other, ['--init-file=']);
  }
  return {
    nodes: nodes.map(node => ({
      url: node.running.url,
      kill: () => killed(node),
      start: () => start(node, ['--init-file=', `--wsrep-start-position=${positionOf(node)}`]),
      cutOff: () => told(node, "set global wsrep_provider_options = 'gmcast.isolate=1'"),
      connect: async () => {
        await told(node, "set global wsrep_provider_options = 'gmcast.isolate=0'");
        await untilJoined(node);
      },
      fallBehind: () => fallenBehind(node),
    })),
    stop: async () => {
      for (const { running } of nodes.toReversed()) await running?.stop();
    },
  };
}

/** A node's folder and its ports: for clients, for the other nodes, and for what it takes from them, in steps and as files. */
async function nodeAt(folder, password) {
  mkdirSync(folder, { mode: 0o700 });
  writeFileSync(join(folder, 'password'), password, { mode: 0o600 });
  const [clients, peers, steps, files] = [
    await freePort(),
    await freePort(),
    await freePort(),
    await freePort(),
  ];
  return { folder, ports: { clients, peers, steps, files }, settings: [], running: null };
}

const settingsOf = ({ ports: { peers, steps, files } }, addresses) => [
  '--binlog-format=ROW',
  '--innodb-autoinc-lock-mode=2',
  '--wsrep-on=ON',
  `--wsrep-provider=${PROVIDER}`,
  '--wsrep-cluster-name=periwinkle',
  `--wsrep-cluster-address=gcomm://${addresses}`,
  `--wsrep-node-address=127.0.0.1:${peers}`,
  '--wsrep-sst-method=rsync',
  `--wsrep-sst-receive-address=127.0.0.1:${files}`,
  `--wsrep-provider-options=gmcast.listen_addr=tcp://127.0.0.1:${peers};ist.recv_addr=127.0.0.1:${steps};${SOON}`,
];

async function start(node, more) {
  const { folder, ports, settings } = node;
  // What it takes from others is written by a program that does not do it for root.
  node.running = await startDatabase(folder, {
    port: ports.clients,
    user: 'mysql',
    settings: [...settings, ...more],
  });
  await untilJoined(node);
}

async function killed({ running }) {
  process.kill(running.pid, 'SIGKILL');
  await running.exited;
}

/** The place in the cluster's history up to which a killed node has stored it. */
function positionOf({ folder, settings, running }) {
  const args = [...running.where, ...settings, '--wsrep-recover', '--skip-networking'];
  const { stderr } = spawnSync(findProgram('mariadbd'), args, { encoding: 'utf8' });
  const [, position] = /Recovered position:\s*(\S+)/.exec(stderr) ?? [];
  if (!position) throw new Error(`${folder} does not say what it has stored: ${stderr}`);
  return position;
}

/** Until a node has what the others have, and works with them. */
const untilJoined = node =>
  until(
    async () => {
      const rows = await told(
        node,
        "show status where Variable_name in ('wsrep_ready', 'wsrep_local_state')",
      );
      return rows.map(({ Value }) => Value).join() === '4,ON';
    },
    JOIN_MS,
    () => `A node of the cluster does not join; ${node.folder}/mariadb.log says why.`,
  );

/** Keeps a node from storing what comes from the others, until what this returns is called. */
async function fallenBehind(node) {
  const connection = await administrator(node);
  await connection.query('flush tables with read lock');
  return () => connection.end();
}

/** A connection of a node's administrator, who alone may say some things to it, at its own socket. */
const administrator = ({ running }) =>
  createConnection({ socketPath: running.socket, user: 'root', password: running.password });

async function told(node, statement) {
  const connection = await administrator(node);
  try {
    const [rows] = await connection.query(statement);
    return rows;
  } finally {
    await connection.end();
  }
}
