<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverKeys;

/** What WCAG 2.2 (AA) asks beyond what a program sees in the page as it stands: each criterion by its number. */
final class BarriersTest extends BrowserTestCase
{
    use MeetsNoBarrier;

    private const STATIONS = ['deliver', 'prepare', 'match', 'tally', 'review', 'prove', 'sign'];

    public function test_sign_in_takes_what_is_pasted_and_what_a_password_manager_fills_in(): void
    {
        // 3.3.8: nothing has to be remembered or written off.
        $this->open('/');
        $this->see('Sign in');
        foreach (['E-mail address' => 'username', 'Password' => 'current-password'] as $label => $fills) {
            $field = $this->visible("id(//label[normalize-space(.)='{$label}']/@for)", $label);
            self::assertSame($fills, $field->getAttribute('autocomplete'));
            $isTaken = $this->browser->executeScript(
                'return arguments[0].dispatchEvent(new ClipboardEvent("paste", { bubbles: true, cancelable: true }))',
                [$field],
            );
            self::assertTrue($isTaken, "What is pasted into {$label} is refused.");
        }
    }

    public function test_every_station_works_on_320_pixels_and_its_targets_can_be_hit(): void
    {
        $tally = $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('Moorings');
        foreach (self::STATIONS as $station) {
            $this->open("/datasets/{$tally->dataset_id}/{$station}");
            $this->visible('//main', 'the station');
            $this->visible('//main//h1', 'its heading');
            $drawn = fn(): mixed => $this->browser->executeScript('return document.querySelector("main [aria-busy=true]") === null');
            $this->until(fn(): bool => $drawn() === true, 'the station to be drawn');
            // 2.5.8: 24 by 24 pixels, or as much room around.
            $this->browser->executeScript((string) file_get_contents(base_path('node_modules/axe-core/axe.min.js')));
            $small = $this->browser->executeAsyncScript(
                'const done = arguments[arguments.length - 1]; axe.run({ runOnly: ["target-size"], iframes: false })'.
                    '.then(({ violations }) => done(violations.flatMap(({ nodes }) => nodes.map(({ html }) => html))))',
            );
            self::assertSame([], $small, "{$station}: too small");
            // 1.4.10: one column, and nothing is moved sideways but what is a table or a picture by nature.
            $this->width(320);
            $this->until(
                fn(): bool => $this->browser->executeScript('return document.documentElement.scrollWidth') <= 320,
                "{$station} on 320 pixels",
            );
            $this->width(1280);
        }
    }

    public function test_whoever_has_no_mouse_comes_to_the_work_at_once_and_sees_where_they_are(): void
    {
        $tally = $this->tallied();
        $this->signIn('ruth.osei@wherrymoor.example');
        $this->see('Moorings');
        $this->open("/datasets/{$tally->dataset_id}/review");
        $this->see('What differs, and why');
        $this->browser->executeScript('document.activeElement?.blur()');
        $body = $this->browser->findElement(WebDriverBy::tagName('body'));
        $body->sendKeys(WebDriverKeys::TAB);
        self::assertSame('Skip to the content', $this->browser->switchTo()->activeElement()->getText());
        $this->browser->switchTo()->activeElement()->sendKeys(WebDriverKeys::ENTER);
        self::assertSame('main', $this->browser->executeScript('return document.activeElement.tagName.toLowerCase()'));

        // 2.4.11: what has the focus is not covered.
        $covered = [];
        for ($tabs = 0; $tabs < 45; $tabs++) {
            $this->browser->switchTo()->activeElement()->sendKeys(WebDriverKeys::TAB);
            $found = $this->browser->executeScript(<<<'JS'
                const at = document.activeElement
                if (at === document.body || at.closest('.unseen')) return null
                const { left, right, top, bottom } = at.getBoundingClientRect()
                const places = [[(left + right) / 2, (top + bottom) / 2], [left + 3, top + 3], [right - 3, bottom - 3]]
                const frame = at.closest('.el-select__wrapper')
                const isSeen = (on) => on !== null && (at.contains(on) || on.contains(at) || (frame !== null && frame.contains(on)))
                const seen = places.some(([x, y]) => isSeen(document.elementFromPoint(x, y)))
                return seen || right - left < 3 ? null : at.outerHTML.slice(0, 160)
                JS);
            $covered = $found === null ? $covered : [...$covered, $found];
        }
        self::assertSame([], $covered);

        // 2.1.4: single keys can be switched off; the list of them opens anywhere.
        $this->station('Tally');
        $this->see('Every row is accounted for');
        $this->browser->executeScript('document.activeElement?.blur()');
        $this->browser->findElement(WebDriverBy::tagName('body'))->sendKeys('?');
        $this->see('Keyboard');
        $this->see('Single letters and signs act as keys');
        $this->press('Close this dialog');

        // 2.5.7: what is dragged can be done without; 4.1.3: what became of it is announced.
        $this->station('Review');
        $divider = $this->visible("//*[@role='separator'][@aria-label='Width of the patterns']", 'the divider');
        $before = $divider->getAttribute('aria-valuenow');
        $divider->sendKeys(WebDriverKeys::ARROW_RIGHT);
        $this->until(fn(): bool => $divider->getAttribute('aria-valuenow') !== $before, 'the pane to be wider');
        $this->press('Show the 1 missing rows');
        $this->ruleOn('NQ,8', 'e', 'as agreed');
        $this->visible("//*[@role='status'][contains(., 'Ruled expected on 1 finding')]", 'what became of it');
    }

    private function width(int $pixels): void
    {
        (new ChromeDevToolsDriver($this->browser))->execute('Emulation.setDeviceMetricsOverride', [
            'width' => $pixels, 'height' => 800, 'deviceScaleFactor' => 1, 'mobile' => false,
        ]);
    }
}
