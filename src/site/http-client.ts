/** What reads from servers, in a file of its own: only some targets need it, and it takes its time to load. */
export { Agent, fetch } from 'undici';
export { domainMatch, pathMatch } from 'tough-cookie';
