<?php

declare(strict_types=1);

namespace Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeDevToolsDriver;
use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Exception\WebDriverException;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\DriverCommand;
use Facebook\WebDriver\Remote\JsonWireCompat;
use Facebook\WebDriver\Remote\LocalFileDetector;
use Facebook\WebDriver\Remote\RemoteExecuteMethod;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\Remote\RemoteWebElement;
use Facebook\WebDriver\Remote\WebDriverCapabilityType;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;
use Tests\TestCase;

/** A story told through the real interface: by what is seen and by label. A JavaScript error or a failed request fails it. */
abstract class BrowserTestCase extends TestCase
{
    use MeetsNoBarrier;
    use RulesInReview;

    /** What comes is seen at once; only what does not come is waited for so long, also on a machine that has other things to do. */
    private const SECONDS = 45;

    private const ADDRESS = 'http://127.0.0.1:8190';

    /** Of the person whose turn it is. */
    protected RemoteWebDriver $browser;

    /** @var array<string, RemoteWebDriver> by the folder of its profile */
    private array $browsers = [];

    protected function setUp(): void
    {
        parent::setUp();
        $this->openBrowser();
    }

    protected function tearDown(): void
    {
        $complaints = [];
        foreach ($this->browsers as $profile => $browser) {
            $complaints = [
                ...$complaints,
                ...array_filter(
                    $browser->manage()->getLog('browser'),
                    fn(mixed $entry): bool => is_array($entry) &&
                        ($entry['level'] ?? '') === 'SEVERE' &&
                        ! $this->isExpected((string) json_encode($entry, JSON_UNESCAPED_SLASHES)),
                ),
            ];
            $browser->quit();
            exec('rm -rf '.escapeshellarg($profile));
        }
        self::assertSame([], $complaints, 'The browser complained.');
        parent::tearDown();
    }

    /** A browser of its own, for one person more. The story goes on in it. */
    protected function openBrowser(): RemoteWebDriver
    {
        $profile = storage_path('work/chrome-'.bin2hex(random_bytes(4)));
        $options = new ChromeOptions;
        $options->addArguments([
            '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run', '--disable-background-networking',
            '--disable-component-update', '--disable-sync', '--disable-dev-shm-usage', '--force-prefers-reduced-motion',
            "--user-data-dir={$profile}",
        ]);
        // Chromium without the window that nobody sees: what it draws is the same, with half the work around it.
        $options->setBinary('/usr/bin/chromium-headless-shell');
        $capabilities = new DesiredCapabilities([WebDriverCapabilityType::BROWSER_NAME => 'chrome-headless-shell']);
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $this->browser = $this->browsers[$profile] = RemoteWebDriver::create('http://127.0.0.1:8192', $capabilities);
        $tools = new ChromeDevToolsDriver($this->browser);
        $size = ['width' => 1280, 'height' => 800, 'deviceScaleFactor' => 1, 'mobile' => false];
        $tools->execute('Emulation.setDeviceMetricsOverride', $size);
        $tools->execute('Browser.setDownloadBehavior', ['behavior' => 'allow', 'downloadPath' => storage_path('work')]);

        return $this->browser;
    }

    /** Whether a failed request is part of the story, such as a file that is refused. */
    protected function isExpected(string $complaint): bool
    {
        return false;
    }

    protected function open(string $path): void
    {
        $this->browser->get(self::ADDRESS.$path);
    }

    protected function signIn(string $email): void
    {
        $this->open('/');
        $this->type('E-mail address', $email);
        $this->type('Password', 'kept by the lock house');
        $this->press('Sign in');
    }

    protected function station(string $name): void
    {
        $this->visible("//nav[@aria-label='Stations']//a[.//b[.='{$name}']]", "the station {$name}")->click();
    }

    protected function see(string $text): void
    {
        $this->until(fn(): bool => str_contains($this->text(), $text), "to see \"{$text}\"");
    }

    protected function press(string $name): void
    {
        $quoted = $this->quoted($name);
        $element = $this->visible(
            "//button[not(@disabled)][normalize-space(.)={$quoted} or @aria-label={$quoted} or starts-with(normalize-space(.), ".
                "{$quoted})] | //a[normalize-space(.)={$quoted} or @aria-label={$quoted}]",
            "a button \"{$name}\"",
        );
        $element->click();
    }

    /** Goes with the tabulator to what has such a name and strikes keys there, as whoever has no mouse. */
    protected function strike(string $name, string ...$keys): void
    {
        for ($tabs = 0; $tabs < 250; $tabs++) {
            $focused = $this->browser->executeScript(
                'const at = document.activeElement; return at.getAttribute("aria-label") ?? at.textContent ?? ""',
            );
            if (is_string($focused) && str_starts_with((string) preg_replace('/\s+/', '', $focused), str_replace(' ', '', $name))) {
                $this->strokes(...($keys === [] ? [WebDriverKeys::ENTER] : $keys));
                $this->addToAssertionCount(1);

                return;
            }
            $this->strokes(WebDriverKeys::TAB);
        }
        self::fail("With the tabulator one does not come to \"{$name}\". The page says:\n".mb_substr($this->text(), 0, 3_000));
    }

    /** Keys of the keyboard itself: sent to an element, those for a place of files would be taken for the name of one. */
    private function strokes(string ...$keys): void
    {
        $actions = [];
        foreach ($keys as $key) {
            array_push($actions, ['type' => 'keyDown', 'value' => $key], ['type' => 'keyUp', 'value' => $key]);
        }
        $this->browser->execute(DriverCommand::ACTIONS, ['actions' => [['type' => 'key', 'id' => 'keyboard', 'actions' => $actions]]]);
    }

    protected function type(string $label, string $text): void
    {
        $quoted = $this->quoted($label);
        $this->visible("//*[@aria-label={$quoted}] | id(//label[normalize-space(.)={$quoted}]/@for)", "a field \"{$label}\"")->sendKeys([
            WebDriverKeys::CONTROL,
            'a',
            WebDriverKeys::NULL,
            $text,
        ]);
    }

    protected function choose(string $field, string $option): void
    {
        $place = '//div[contains(@class, "el-select__wrapper")][.//input[@aria-label='.$this->quoted($field).']]';
        $wanted = '//li[contains(@class, "el-select-dropdown__item")][normalize-space(.)='.$this->quoted($option).']';
        $this->visible($place, "a choice \"{$field}\"")->click();
        // The list slides open: a click may come too early, and is tried again. A page that is drawn anew closes it, so it is opened again.
        $looks = 0;
        $this->until(function () use ($place, $wanted, &$looks): bool {
            $open = array_filter(
                $this->browser->findElements(WebDriverBy::xpath($wanted)),
                static fn(WebDriverElement $item): bool => $item->isDisplayed(),
            );
            if ($open === []) {
                ++$looks % 40 === 0 && $this->visible($place, 'the choice again')->click();

                return false;
            }
            $this->visible($wanted, 'the option at rest')->click();

            return true;
        }, "an option \"{$option}\" of \"{$field}\"");
    }

    protected function attach(string $label, string $content, string $name): void
    {
        $path = storage_path("work/{$name}");
        file_put_contents($path, $content);
        $input = null;
        $this->until(function () use ($label, &$input): bool {
            $input =
                $this->browser->findElements(WebDriverBy::xpath('//input[@type="file"][@aria-label='.$this->quoted($label).']'))[0] ??
                null;

            return $input !== null;
        }, "a place for a file \"{$label}\"");
        if ($input instanceof RemoteWebElement) {
            $input->setFileDetector(new LocalFileDetector)->sendKeys($path);
        }
    }

    /** Keys go to the list of findings, as after a click into it. */
    protected function keys(string ...$keys): void
    {
        $this->visible('//*[@role="listbox"]', 'the list')->sendKeys($keys);
    }

    protected function howMany(string $xpath): int
    {
        return count($this->browser->findElements(WebDriverBy::xpath($xpath)));
    }

    protected function seeFindings(int $number): void
    {
        $this->until(
            fn(): bool => $this->howMany('//*[@aria-label="Findings"]//*[@role="option"]') === $number,
            "{$number} findings in the list",
        );
    }

    protected function visible(string $xpath, string $what): WebDriverElement
    {
        $found = null;
        $this->until(function () use ($xpath, &$found): bool {
            // One question for all elements: the driver's own would look at each of them with a long script, and is asked all the time.
            // Whoever aims at what still moves clicks beside it, so it must stand where it stood two frames ago.
            $answer = $this->browser->executeAsyncScript(<<<'JS'
                const [xpath, done] = arguments
                const seen = (element) => {
                  const { x, y, width, height } = element.getBoundingClientRect()
                  const isShown = element.isConnected && element.checkVisibility({ opacityProperty: true, visibilityProperty: true })
                  const isSeen = width && height && !element.disabled && isShown
                  return isSeen ? `${x} ${y} ${width} ${height}` : ''
                }
                const every = document.evaluate(xpath, document, null, XPathResult.ORDERED_NODE_SNAPSHOT_TYPE)
                let found = null
                for (let place = 0; place < every.snapshotLength && !found; place++) {
                  found = seen(every.snapshotItem(place)) ? every.snapshotItem(place) : null
                }
                const before = found && seen(found)
                if (!found) done(null)
                else requestAnimationFrame(() => requestAnimationFrame(() => done(seen(found) === before ? found : null)))
                JS, [$xpath]);
            $id = is_array($answer) ? JsonWireCompat::getElement($answer) : null;
            $found = is_string($id) ? new RemoteWebElement(new RemoteExecuteMethod($this->browser), $id, true) : null;

            return $found !== null;
        }, $what);

        return $found instanceof WebDriverElement ? $found : self::fail("There is no {$what}.");
    }

    /** @param \Closure(): bool $holds */
    protected function until(\Closure $holds, string $what): void
    {
        $end = microtime(true) + self::SECONDS;
        $pause = 40_000;
        do {
            try {
                if ($holds()) {
                    $this->addToAssertionCount(1);

                    return;
                }
            } catch (WebDriverException) {
                // The page was just drawn anew: look again.
            }
            // To look costs the page as much as a turn of its work, so what takes long is looked at less often.
            usleep($pause = min(250_000, (int) ($pause * 1.4)));
        } while (microtime(true) < $end);
        self::fail("Waited in vain for {$what}. The page says:\n".mb_substr($this->text(), 0, 3_000));
    }

    protected function text(): string
    {
        // What can be seen, as the page itself says it: the driver would walk through every element, and is asked all the time.
        $text = $this->browser->executeScript('return document.body.innerText');

        // Cells of one line may stand in boxes of their own, which are told line by line.
        return trim((string) preg_replace('/\s+/', ' ', is_string($text) ? $text : ''));
    }

    private function quoted(string $text): string
    {
        return str_contains($text, "'") ? "\"{$text}\"" : "'{$text}'";
    }
}
