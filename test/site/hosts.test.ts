// Which hosts a visit may ask.

import assert from 'node:assert/strict';
import { test } from 'node:test';
import { CredentialJar } from '../../src/site/visiting/credentials.js';
import { isPrivate, leadsInside } from '../../src/site/visiting/hosts.js';
import { Web } from '../../src/site/visiting/web.js';
import { html, withServer } from '../support/platform.js';

test('addresses of this machine, of the house and of nobody are private', async () => {
  for (const one of [
    '127.0.0.1',
    '10.1.2.3',
    '172.31.0.1',
    '192.168.1.1',
    '169.254.169.254',
    '100.64.0.1',
    '0.0.0.0',
    '224.0.0.1',
    '::1',
    '::',
    'fe80::1',
    'fd00::1',
    '::ffff:127.0.0.1',
    '::ffff:10.0.0.1',
  ])
    assert.equal(isPrivate(one), true, one);
  for (const one of ['8.8.8.8', '172.32.0.1', '2001:db8::1', '::ffff:8.8.8.8', 'skerrin.example'])
    assert.equal(isPrivate(one), false, one);
  assert.equal(await leadsInside('http://localhost/'), true);
  assert.equal(await leadsInside('http://[::1]:8080/'), true);
});

test('a visit that began elsewhere asks no private address, by number or by name', async () => {
  await withServer({ '/': html('<p>inside') }, async (address, requests) => {
    const origin = 'http://skerrin.example';
    const web = new Web({
      bounds: { requests: 10, bytes: 1000, seconds: 60 },
      credentials: new CredentialJar({}, origin),
      allowsPrivate: false,
      atOnce: 1,
      pause: 0,
      agentName: 'acervus',
    });
    try {
      for (const one of [
        address,
        address.replace('127.0.0.1', 'localhost'),
        address.replace('127.0.0.1', '[::ffff:127.0.0.1]'),
      ])
        await assert.rejects(
          web.get(one, {}, () => true),
          /is an address of this machine or house/,
          one,
        );
    } finally {
      await web.close();
    }
    assert.equal(requests.length, 0);
  });
});
