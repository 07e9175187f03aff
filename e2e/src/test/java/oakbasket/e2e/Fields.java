package oakbasket.e2e;

import com.microsoft.playwright.Locator;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.AriaRole;
import java.time.LocalDate;

/** How hands use the desk's own fields: a day is typed, a choice is opened and picked. */
final class Fields {

    private Fields() {
    }

    /** Types a day. */
    static void date(Page page, String label, LocalDate day) {
        type(page.getByLabel(label), day.toString());
    }

    /** Types into a field that opens something of its own under it, and closes that again. */
    static void type(Locator field, String words) {
        field.fill(words);
        field.press("Enter");
    }

    /** Opens the choice with this label and picks the one with these words. */
    static void choose(Page page, String label, String words) {
        choose(page, page.getByRole(AriaRole.COMBOBOX, new Page.GetByRoleOptions().setName(label)).first(), words);
    }

    static void choose(Page page, Locator choice, String words) {
        choice.locator("xpath=ancestor::*[contains(@class, 'el-select__wrapper')]").click();
        page.locator(".el-select-dropdown:visible").getByRole(AriaRole.OPTION, new Locator.GetByRoleOptions().setName(words).setExact(true)).click();
    }

    /** Opens the menu with this name and picks the line with these words. */
    static void pick(Page page, String menu, String words) {
        page.getByText(menu).first().click();
        page.getByRole(AriaRole.MENUITEM, new Page.GetByRoleOptions().setName(words).setExact(true)).click();
    }
}
