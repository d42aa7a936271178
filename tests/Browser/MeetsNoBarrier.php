<?php

declare(strict_types=1);

namespace Tests\Browser;

/** Whether people with disabilities can use the page that stands in the browser. */
trait MeetsNoBarrier
{
    /** The rules of WCAG 2.1 (A and AA) that a program can check, on the page as it stands. */
    protected function meetsNoBarrier(): void
    {
        $this->browser->executeScript((string) file_get_contents(base_path('node_modules/axe-core/axe.min.js')));
        $found = $this->browser->executeAsyncScript(<<<'JS'
            const done = arguments[arguments.length - 1]
            const where = (rule) => rule.nodes.slice(0, 3).map((node) => node.html).join(' | ')
            const isEndless = (one) => one.effect.getTiming().iterations === Infinity
            const still = () => document.getAnimations().every((one) => one.playState !== 'running' || isEndless(one))
            const settled = async () => {
              // What fades in or out has the colours of neither: two quiet frames in a row, at most two seconds.
              for (let frames = 0, quiet = 0; quiet < 2 && frames < 120; frames++) {
                await new Promise(requestAnimationFrame)
                quiet = still() ? quiet + 1 : 0
              }
            }
            settled().then(() => axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa'], iframes: false }))
              .then(({ violations }) => done(violations.map((rule) => `${rule.help}: ${where(rule)}`)))
            JS);

        self::assertSame([], $found, $this->browser->getCurrentURL());
    }
}
