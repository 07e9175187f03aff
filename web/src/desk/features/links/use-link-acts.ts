import { desk, type Schemas } from '../../../api/desk'
import { text } from '../../../text/desk'
import { ask, say, sayProblem } from '../../say'

type Bulk = Parameters<typeof desk.actOnLinks>[0]
type Kind = NonNullable<Bulk['kind']>

/** Does something to links, says so, and offers to undo it. */
export function useLinkActs() {
  const t = text.links

  async function undo(act: number) {
    try {
      await desk.undoLinkAct(act)
      say(text.acts.undone)
    } catch (error) {
      sayProblem(error)
    }
  }

  function done(result: Schemas['LinksChanged'], words: string = t.changed(result.changed)) {
    if (result.changed === 0) say(t.nothingChanged)
    else say(words, { label: text.panel.undo, run: () => void undo(result.act) })
  }

  /** Asks first where all links are meant that fit; {@code all} is how many. */
  async function act(bulk: Bulk, all = 0): Promise<boolean> {
    const questions: Partial<Record<Kind, (count: number) => string>> = { PAUSE: t.pauseAll, WITHDRAW: t.withdrawAll, RENEW: t.renewAll, PASSCODE: t.passcodeAll }
    const question = questions[bulk.kind!]
    if (bulk.all && question && !(await ask(question(all)))) return false
    try {
      done(await desk.actOnLinks(bulk))
      return true
    } catch (error) {
      sayProblem(error)
      return false
    }
  }

  return { act, undo, done }
}
