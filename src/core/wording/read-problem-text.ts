import { findChannel } from '../quantities/channels';
import type { ReadProblem } from '../vocabulary/read-problem';

function at(problem: { file: string; line?: number }): string {
  return problem.line === undefined ? problem.file : `${problem.file}, line ${problem.line}`;
}

/** Names the culprit, then the cure. */
export function readProblemText(problem: ReadProblem): string {
  switch (problem.code) {
    case 'not-text':
      return `${problem.file}: this is not a text file; a bench log is CSV in UTF-8`;
    case 'empty-file':
      return `${problem.file}: holds no rows; a bench log begins with a header such as "time [s],input_pressure [kPa]"`;
    case 'too-many-columns':
      return `${problem.file}: its header has ${problem.columns} columns; no log has so many`;
    case 'no-time-column':
      return `${at(problem)}: no "time" column in the header`;
    case 'bad-header':
      return `${at(problem)}: header "${problem.header}" is not of the form channel [unit]`;
    case 'unknown-unit':
      return `${at(problem)}: "${problem.header}": no measurement unit "${problem.unit}" is known`;
    case 'wrong-unit':
      return `${at(problem)}: "${problem.header}" needs a unit like ${problem.needs}`;
    case 'duplicate-channel':
      return `${at(problem)}: channel "${problem.channel}" stands in two columns`;
    case 'missing-channel':
      return `${at(problem)}: step ${problem.step} needs the channel "${problem.channel}", which no column holds`;
    case 'nothing-of-use':
      return `${at(problem)}: step ${problem.step} needs one of these, and no column holds any: ${problem.anyOf.map((way) => way.join(' with ')).join('; or ')}`;
    case 'empty-channel':
      return `${problem.file}: step ${problem.step} needs the channel "${problem.channel}", and its column is empty`;
    case 'not-a-number':
      return `${at(problem)}, column "${problem.column}": "${problem.text}" is not a number; leave a missing sample empty`;
    case 'ragged-row':
      return `${at(problem)}: ${problem.cells} cells where the header has ${problem.needs}`;
    case 'time-backwards':
      return `${at(problem)}, column "time": ${problem.time} s comes after ${problem.before} s; time must not run backwards`;
    case 'too-few-rows':
      return `${problem.file}: ${problem.rows} rows; step ${problem.step} needs at least ${problem.needs}`;
    case 'ambiguous-reference': {
      const named = findChannel(problem.channel)?.reference === 'vacuum' ? 'vacuum' : 'gauge';
      const kPa = (si: number) => (si / 1e3).toFixed(1);
      return `${at(problem)}: "${problem.channel}" lies between ${kPa(problem.low)} and ${kPa(problem.high)} kPa, which makes sense as ${named} and as an absolute pressure: say which, --assume ${problem.channel}=${named} or --assume ${problem.channel}=absolute`;
    }
    case 'not-json':
      return `${problem.file}: not valid JSON: ${problem.detail}`;
    case 'bad-field':
      return `${problem.file}: field ${problem.field}: ${problem.detail}`;
    case 'unknown-family':
      return `${problem.file}: field family: "${problem.family}" is not known; known: ${problem.known.join(', ')}`;
    case 'unknown-step':
      return `step "${problem.step}" is not known here; known: ${problem.known.join(', ')}`;
    case 'unknown-fault':
      return `fault "${problem.fault}" is not known here; known: ${problem.known.join(', ')}`;
    case 'unknown-plan':
      return `plan "${problem.plan}" is not known here; known: ${problem.known.join(', ')}`;
    case 'look-step':
      return `step "${problem.step}" is looked at, not logged; bring its findings with --readings`;
    case 'mixed-gauges':
      return `${problem.file}: the gauges were swapped in one run of ${problem.step} and not in another; such runs are not averaged, evaluate them one by one`;
    case 'unreadable':
      return `${problem.file}: cannot be read: ${problem.detail}`;
    case 'bad-argument':
      return `${problem.argument}: ${problem.detail}`;
  }
}
