<?php

declare(strict_types=1);

namespace Tests\Browser;

use Database\Demo\Wherrymoor;
use NineTally\Core\Row\KeyTuple;

/** What a newcomer sees after the start command: the demo, from the board to the report. Figures come from how the demo was made. */
final class RuthWalksTheDemoTest extends BrowserTestCase
{
    use OnTheDemo;

    /**
     * @var array{rows: array<string, array<string, int>>, cells: list<array{key: list<string>, column: string, class: string,
     *     cause: string}>}
     */
    private array $truth;

    protected function setUp(): void
    {
        parent::setUp();
        $this->loadDemo();
        /**
         * @var array{rows: array<string, array<string, int>>, cells: list<array{key: list<string>, column: string, class: string,
         *     cause: string}>} $truth
         */
        $truth = json_decode((string) file_get_contents(storage_path('work/demo/moorings_truth.json')), true, 8, JSON_THROW_ON_ERROR);
        $moorings = Wherrymoor::datasets()[0];
        $passed = array_filter(
            $truth['cells'],
            /** @param array{column: string, cause: string} $cell */
            static fn(array $cell): bool => $moorings->rules->lets($cell['column'], $cell['cause']),
        );
        // Every planted cell takes a row of its own: one whose difference is let pass agrees.
        $truth['rows']['source']['changed'] -= count($passed);
        $truth['rows']['target']['changed'] -= count($passed);
        $this->truth = $truth;
    }

    public function test_from_the_board_to_the_report(): void
    {
        [$source, $target] = [$this->truth['rows']['source'], $this->truth['rows']['target']];
        $this->signIn('analyst@wherrymoor.example');
        $this->see('Seven datasets, one signed, one being signed');
        $this->meetsNoBarrier();
        $this->press('Moorings');

        $this->see('What differs, and why');
        $this->see($this->balance('Source', 'missing', $source));
        $this->see($this->balance('Target', 'extra', $target));
        // Many patterns of one column are a family, and folded.
        $this->press('Patterns of holder_name → holder, differ');
        foreach (
            [
                'holder_name → holder: spaces differ and capitals differ' => $this->planted('holder_name', 'spacing+case'),
                'electric_post: blank in the target' => $this->planted('electric_post', 'blanked'),
            ]
            as $pattern => $keys
        ) {
            $this->press(sprintf('%s, %d cells', $pattern, count($keys)));
            array_map($this->see(...), $keys);
        }
        $this->meetsNoBarrier();
        $this->press('Ask');
        $this->see('who is asked?');
        $this->choose('Who to ask', 'Tove Lindqvist, data owner');
        $this->press('Enter the ruling');
        $this->see('Ruled ask on 1 finding.');

        $this->press("Show the {$source['missing']} missing rows");
        $this->see("Rule on all {$source['missing']}");

        $this->station('Deliver');
        $this->see('What each side handed over');
        $this->see('moorings_old.csv');
        $this->meetsNoBarrier();
        $this->press("{$source['refused']} records refused");
        $this->see('bytes that are not UTF-8 text');
        $this->press('Close this dialog');
        $this->station('Match');
        $this->meetsNoBarrier();
        $this->see("{$source['unkeyed']} without a key New register");
        $this->station('Tally');
        $this->see('Every row is accounted for');
        $this->meetsNoBarrier();

        $this->station('Sign');
        $this->see('Is it good enough to go live?');
        $this->meetsNoBarrier();
        $this->browser->switchTo()->frame($this->visible('//iframe', 'the report'));
        $this->see('Moorings');
        $this->see(number_format($source['missing']));
        $this->browser->switchTo()->defaultContent();
        $this->press('Report as PDF');
        $path = storage_path('work/moorings-tally-1-report-1.pdf');
        $this->until(static fn(): bool => is_file($path), 'the PDF');
        self::assertStringStartsWith('%PDF', (string) file_get_contents($path));
        unlink($path);
    }

    public function test_a_rule_that_is_set_on_match_lets_its_cells_pass_in_the_next_tally(): void
    {
        $dates = count($this->planted('paid_until', 'date-form'));
        $this->signIn('analyst@wherrymoor.example');
        $this->press('Moorings');
        $this->station('Match');
        $this->press('Rules of paid_until:');
        $this->choose('Read as', 'date');
        $this->see('draft after plan 1, saved');
        $this->meetsNoBarrier();
        $this->press('Undo the last change');
        $this->press('Rules of paid_until: nothing');
        $this->press('Rules of paid_until: nothing');
        $this->choose('Read as', 'date');
        $this->press('Rules of paid_until: date form');
        $this->press('Tally');
        $this->see('no. 2');
        $this->station('Review');
        $this->see(
            $this->balance(
                'Source',
                'missing',
                ['changed' => $this->truth['rows']['source']['changed'] - $dates] + $this->truth['rows']['source'],
            ),
        );
        $this->see('paid_until : same date, written differently');
    }

    /** @param array<string, int> $rows */
    private function balance(string $side, string $unmatched, array $rows): string
    {
        $figures = array_map(number_format(...), $rows);
        $agreed = number_format($rows['delivered'] - $rows['changed'] - $rows[$unmatched] - $rows['repeated'] - $rows['unkeyed']);

        return "{$side} {$figures['delivered']} = {$agreed} agreed + {$figures['changed']} changed + {$figures[$unmatched]} {$unmatched} ".
            "+ {$figures['repeated']} repeated + {$figures['unkeyed']} unkeyed";
    }

    /** @return non-empty-list<string> the keys of the cells that were bent so */
    private function planted(string $column, string $cause): array
    {
        $cells = array_filter(
            $this->truth['cells'],
            static fn(array $cell): bool => $cell['column'] === $column && $cell['cause'] === $cause,
        );

        return $cells === []
            ? self::fail("The demo plants {$cause} in {$column}.")
            : array_map(static fn(array $cell): string => KeyTuple::of($cell['key'])->asCsv(), array_values($cells));
    }
}
