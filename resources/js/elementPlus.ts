import { ElButton, ElCheckbox, ElDialog, ElForm, ElFormItem, ElInput, ElInputNumber, ElOption, ElOptionGroup, ElProgress, ElSelect } from 'element-plus'
import type { App } from 'vue'

/** The components of Element Plus that Nine Tally uses. */
export function useElementPlus(app: App): App {
  for (const component of [ElButton, ElCheckbox, ElDialog, ElForm, ElFormItem, ElInput, ElInputNumber, ElOption, ElOptionGroup, ElProgress, ElSelect]) {
    app.component(component.name ?? '', component)
  }
  return app
}
