// Writes src/lib/time/quick/tables.json anew: how dates and times are written in the languages that guests read, as
// Node's own tables say. To be run when a language is added, or when the test beside it says that they have changed.
import { writeFileSync } from 'node:fs';

const TAGS = ['en', 'en-GB', 'en-US', 'de', 'de-DE', 'fr', 'fr-FR', 'es', 'es-ES', 'da', 'da-DK'];
// As in src/lib/time/format.ts.
const DATES = {
    longDate: { weekday: 'long', day: 'numeric', month: 'long' },
    fullDate: { weekday: 'long', day: 'numeric', month: 'long', year: 'numeric' },
    dayMonth: { day: 'numeric', month: 'short' },
    shortDate: { weekday: 'short', day: 'numeric', month: 'short' },
    shortWeekday: { weekday: 'short' },
    weekday: { weekday: 'long' },
    monthName: { month: 'long' },
    monthYear: { month: 'long', year: 'numeric' },
};

const names = [];

/** The number of an array of names, each of which is kept once. */
function indexOf(list) {
    const text = list.join('|');
    const at = names.findIndex((one) => one.join('|') === text);
    return at >= 0 ? at : names.push(list) - 1;
}

function partsOf(tag, options, at) {
    // What browsers put between a time and its half of the day is a space like any other, though parts say otherwise.
    return new Intl.DateTimeFormat(tag, { ...options, timeZone: 'UTC' })
        .formatToParts(at)
        .map((part) => ({ ...part, value: part.value.replaceAll('\u202f', ' ') }));
}

function nameOf(tag, options, type, at) {
    return partsOf(tag, options, at).find((part) => part.type === type)?.value;
}

function patternOf(tag, options) {
    // 7 January 2024 is a Sunday.
    const weekdays = [0, 1, 2, 3, 4, 5, 6].map((day) => nameOf(tag, options, 'weekday', Date.UTC(2024, 0, 7 + day)));
    const months = Array.from({ length: 12 }, (_, month) => nameOf(tag, options, 'month', Date.UTC(2024, month, 7)));
    return partsOf(tag, options, Date.UTC(2024, 0, 7))
        .map(({ type, value }) => {
            if (type === 'weekday') return `{w${indexOf(weekdays)}}`;
            if (type === 'month') return `{m${indexOf(months)}}`;
            return type === 'literal' ? value : `{${type}}`;
        })
        .join('');
}

function clockOf(tag) {
    const text = (options) =>
        partsOf(tag, { minute: '2-digit', ...options }, Date.UTC(2024, 0, 7, 9, 5))
            .map(({ type, value }) => (type === 'literal' ? value : `{${type}}`))
            .join('');
    const half = (hour) =>
        nameOf(tag, { hour: 'numeric', minute: '2-digit', hourCycle: 'h12' }, 'dayPeriod', Date.UTC(2024, 0, 7, hour));
    return {
        is12: new Intl.DateTimeFormat(tag, { hour: 'numeric' }).resolvedOptions().hour12,
        h24: text({ hour: '2-digit', hourCycle: 'h23' }),
        h12: text({ hour: 'numeric', hourCycle: 'h12' }),
        halves: [half(9), half(15)],
    };
}

const tags = Object.fromEntries(
    TAGS.map((tag) => [
        tag,
        {
            dates: Object.fromEntries(Object.entries(DATES).map(([name, options]) => [name, patternOf(tag, options)])),
            clock: clockOf(tag),
        },
    ]),
);
writeFileSync('src/lib/time/quick/tables.json', `${JSON.stringify({ names, tags }, null, 2)}\n`);
