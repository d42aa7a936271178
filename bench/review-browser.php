<?php

declare(strict_types=1);

/*
 * What a person waits for in Review on five million findings: each kind of step many times over, in a browser, from the real server.
 * A step ends with the frame that draws what was asked for. Run by bin/bench-review after bench/review.php.
 */

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverExpectedCondition;
use Facebook\WebDriver\WebDriverKeys;

require dirname(__DIR__).'/vendor/autoload.php';

[, $address, $driver, $profile] = $argv + [1 => '', '', ''];
const TALLY = 900;
const ROWS = 3_400_000;

$options = (new ChromeOptions)->addArguments([
    '--headless=new', '--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking', '--disable-component-update',
    '--disable-sync', '--disable-dev-shm-usage', '--force-prefers-reduced-motion',
    "--user-data-dir={$profile}",
]);
$browser = RemoteWebDriver::create($driver, DesiredCapabilities::chrome()->setCapability(ChromeOptions::CAPABILITY, $options));
register_shutdown_function(static function () use ($browser): void {
    $browser->quit();
});
$browser->manage()->window()->setSize(new WebDriverDimension(1280, 800));
$browser->manage()->timeouts()->setScriptTimeout(60);

/** Takes a step in the page and waits until the list is drawn again; answers milliseconds. */
$step = static function (string $script, mixed $value = null, bool $asks = false, bool $isNew = false) use ($browser): float {
    $took = $browser->executeAsyncScript(<<<'JS'
        const tell = arguments[arguments.length - 1]
        const [script, given] = arguments
        // A request may come and go between two frames.
        let wasBusy = false
        const watcher = new MutationObserver(() => (wasBusy = true))
        watcher.observe(document.body, { subtree: true, attributeFilter: ['aria-busy'] })
        const began = performance.now()
        new Function('given', script)(given)
        let frames = 0
        const drawn = () => {
          const list = document.querySelector('[role=listbox][aria-label=Findings]')
          const lines = [...(list?.querySelectorAll('.line') ?? [])]
          const isThere = lines.length > 0 && list.getAttribute('aria-busy') !== 'true'
            && lines.every((line) => line.querySelector('.key') !== null)
          return isThere && (given.asks !== true || wasBusy)
        }
        // A list that was there before looks drawn until the page has had time to change it; one that was not does not. A timer that a
        // frame sets comes after it.
        const isDue = () => (given.isNew || ++frames > 2) && drawn()
        const end = () => (watcher.disconnect(), tell(performance.now() - began))
        const look = () => (isDue() ? setTimeout(end) : requestAnimationFrame(look))
        requestAnimationFrame(look)
        JS, [$script, ['asks' => $asks, 'isNew' => $isNew, 'value' => $value]]);

    return is_numeric($took) ? (float) $took : throw new RuntimeException('The page gave no answer.');
};
/** @param list<float> $times */
$line = static function (string $what, array $times): void {
    sort($times);
    printf(
        "| %s | %d | %.0f | %.0f |\n",
        $what,
        count($times),
        $times[intdiv(count($times), 2)],
        $times[(int) floor((count($times) - 1) * 0.95)],
    );
};

$browser->get("{$address}/");
$browser->wait(20)->until(WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector('input[type=password]')));
$browser->findElement(WebDriverBy::cssSelector('form input:not([type=password])'))->sendKeys('ruth@wherrymoor.example');
$browser->findElement(WebDriverBy::cssSelector('input[type=password]'))->sendKeys('kept by the lock house'.WebDriverKeys::ENTER);
$browser->wait(20)->until(WebDriverExpectedCondition::invisibilityOfElementLocated(WebDriverBy::cssSelector('input[type=password]')));
$review = '/datasets/1/review?tally='.TALLY;
$go = 'history.pushState({}, "", given.value); dispatchEvent(new PopStateEvent("popstate", { state: {} }))';

echo "| step in the browser | times | median ms | p95 ms |\n| --- | --- | --- | --- |\n";
mt_srand(11);
$times = [];
for ($time = 0; $time < 21; $time++) {
    $browser->get("{$address}{$review}");
    $step('');
    $drawn = $browser->executeScript('return performance.now()');
    $times[] = is_numeric($drawn) ? (float) $drawn : 0.0;
}
$line('opening Review by its address, with all of the page', array_slice($times, 1));
$times = [];
for ($time = 0; $time < 21; $time++) {
    // A fresh page, that has been read for a second: what Review draws first has been asked for meanwhile, but no code of the station has
    // run.
    $browser->get("{$address}/datasets/1/deliver");
    $browser->wait(20)->until(WebDriverExpectedCondition::presenceOfElementLocated(WebDriverBy::cssSelector('nav[aria-label=Stations]')));
    usleep(1_000_000);
    $times[] = $step($go, $review, isNew: true);
}
$line('opening Review from another station', array_slice($times, 1));

foreach (
    [
        'first page of a class' => static fn(int $time): string => '&class='.['missing', 'extra', 'changed', 'repeated'][$time % 4],
        'first page of a pattern' => static fn(int $time): string => '&pattern='.(2 + $time),
        'first page of a column pair' => static fn(int $time): string => sprintf('&of=cells&pair=pair-%012d', 1 + ($time % 10)),
        'first page of a cause' => static fn(int $time): string => '&of=cells&cause='.['case', 'none', 'sign', 'unicode'][$time % 4],
        'first page of a ruling' => static fn(int $time): string => '&of='.['cells', 'rows'][$time % 2].'&ruling=open',
        'first page of a part of the key' => static fn(int $time): string => '&keyColumn=1&key='.
            ['KB', 'LM', 'NQ', 'OT', 'PW', 'RS', 'TH', 'UV'][$time % 8],
        'first page of one berth' => static fn(): string => '&of=cells&keyColumn=2&key='.(mt_rand(1, intdiv(ROWS, 10)) * 10 + 1),
    ]
    as $what => $query
) {
    [$times, $seen] = [[], []];
    for ($time = 0; $time < 24; $time++) {
        // What the page has seen it draws from memory: that is not what is measured.
        $asked = $query($time);
        if (isset($seen[$asked])) {
            $browser->get("{$address}{$review}");
            $step('');
            $seen = [];
        }
        $seen[$asked] = true;
        $times[] = $step($go, $review.$asked, true);
        // Whoever looks at the first page lets the count come.
        $browser
            ->wait(20)
            ->until(
                static fn(): bool => $browser->executeScript(
                    'return ![...document.querySelectorAll("[role=status]")].some((one) => one.textContent.includes("counting"))',
                ) === true,
            );
    }
    $line($what, array_slice($times, 1));
}

$list = 'document.querySelector("[role=listbox][aria-label=Findings]")';
foreach (
    ['all rows' => '', 'the largest pattern' => '&pattern=1', 'a column pair, counted' => '&of=cells&pair=pair-000000000004']
    as $what => $query
) {
    $browser->get("{$address}{$review}{$query}");
    $step('');
    // Until it is counted, only the first page can be drawn.
    $browser->wait(20)->until(static fn(): bool => (float) $browser->executeScript("return {$list}.scrollHeight") > 100_000);
    $jumps = $steps = [];
    for ($time = 0; $time < 40; $time++) {
        $jumps[] = $step("{$list}.scrollTop = given.value * {$list}.scrollHeight", mt_rand(1, 9_900) / 10_000);
        for ($wheel = 0; $wheel < 3; $wheel++) {
            $steps[] = $step("{$list}.scrollTop += 120");
        }
    }
    $line("a jump into the middle of {$what}", $jumps);
    $line("a scroll step in {$what}", $steps);
}
