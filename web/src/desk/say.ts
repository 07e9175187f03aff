import { ElButton, ElMessage, ElMessageBox } from 'element-plus'
import 'element-plus/theme-chalk/el-button.css'
import 'element-plus/theme-chalk/el-message.css'
import 'element-plus/theme-chalk/el-message-box.css'
import 'element-plus/theme-chalk/el-overlay.css'
import { h } from 'vue'
import { text } from '../text/desk'
import type { ApiProblem } from '../api/problem'

/** A short word at the top of the desk, with an undo where there is one. */
export function say(message: string, undo?: { label: string; run: () => void }): void {
  const handle = ElMessage({
    message: undo ? h('span', [message + ' ', h(ElButton, { size: 'small', onClick: () => { handle.close(); undo.run() } }, () => undo.label)]) : message,
    duration: undo ? 10_000 : 4_000,
    customClass: 'said',
    grouping: false,
  })
}

/** Asks before something is done to very many; true when it is meant. */
export function ask(question: string): Promise<boolean> {
  return ElMessageBox.confirm(question, { showClose: false, confirmButtonText: text.goOn, cancelButtonText: text.round.cancel }).then(
    () => true,
    () => false,
  )
}

export function sayProblem(error: unknown): void {
  const problem = error as ApiProblem
  ElMessage({ message: `${problem.title ?? ''}. ${problem.detail ?? problem.message}`, type: 'error', duration: 8_000, showClose: true })
}
