<?php

declare(strict_types=1);

namespace NineTally\Tests\Matching;

use NineTally\Core\Comparison\RowClass;
use NineTally\Core\Comparison\RowFinding;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\TallySettings;
use NineTally\Tests\Tally\Tallied;
use PHPUnit\Framework\TestCase;
use Random\Engine\Mt19937;
use Random\Randomizer;

/** Rows that are compared hundreds at once: where each is asked what it was forgiven, it is compared by itself, and says the same. */
final class RowsInBulkTest extends TestCase
{
    use Tallied;

    /** What a cell of a column may be on the source and on the target. */
    private const CELLS = [
        'holder' => [
            ['Ottoline', 'OTTOLINE'],
            ['Bríd', 'BRÍD'],
            ['Ezekiel ', 'Ezekiel'],
            ['Ines', 'Ines'],
            ['Tove', 'Imre'],
            ['', ''],
            ['', '  '],
            ['  ', ''],
        ],
        'fee' => [['12.50', '12.5'], ['1200.00', '1200'], ['99.00', '99.01'], ['7', '7'], ['', '8'], ['9', ''], ['8.00', '9']],
        'due' => [['2026-03-04', '04/03/2026'], ['2026-12-01', '01/12/2026'], ['2026-03-04', '2026-03-04'], ['2026-05-05', '06/05/2026']],
        'state' => [
            ['active', 'A'],
            ['lapsed', 'L'],
            ['lapsed', 'lapsed'],
            ['frozen', 'F'],
            ['', ''],
            ['-', ''],
            ['active', 'L'],
            ['frozen', 'frozen'],
        ],
        'note' => [['Quay wall', 'Quay wall'], ['Quay wall', 'Ladder loose'], ['-', ''], ['', '-']],
    ];

    /** Of a hundred rows so many have something that is not forgiven. */
    private const SHARES = [0, 3, 40, 95];

    public function test_rows_that_are_counted_hundreds_at_once_are_counted_as_each_of_them_would_be(): void
    {
        $random = new Randomizer(new Mt19937(20_261_201));
        foreach ([...self::SHARES, ...self::SHARES] as $round => $share) {
            [$old, $new] = $this->sides($random, $share);
            $plan = $this->plan($round >= count(self::SHARES));
            [$alone, $ofAlone, $postingsOfAlone] = $this->tallied($plan, $old, $new, new TallySettings(partitions: 2, listsForgiven: true));
            [$inBulk, $figures, $postings] = $this->tallied($plan, $old, $new, new TallySettings(partitions: 2));

            self::assertSame($alone, $inBulk, "round {$round}");
            self::assertSame($ofAlone, $figures, "round {$round}");
            self::assertSame($postingsOfAlone, $postings, "round {$round}");
            self::assertStringContainsString('"forgiven":', $figures);
        }
    }

    /** @return array{string, string} */
    private function sides(Randomizer $random, int $share): array
    {
        $header = 'berth,'.implode(',', array_keys(self::CELLS))."\n";
        $rows = ['source' => [], 'target' => []];
        for ($row = 0; $row < 1_300; $row++) {
            $cells = ['source' => [(string) $row], 'target' => [(string) $row]];
            $isWrong = $random->getInt(0, 99) < $share;
            foreach (self::CELLS as $choices) {
                // The first two of each column are forgiven.
                $choice = $choices[$random->getInt(0, $isWrong ? count($choices) - 1 : 1)];
                $cells['source'][] = $choice[0];
                $cells['target'][] = $choice[1];
            }
            foreach ($cells as $side => $ofSide) {
                $rows[$side][] = implode(',', $ofSide)."\n";
            }
        }

        return [$header.implode('', $rows['source']), $header.implode('', $random->shuffleArray($rows['target']))];
    }

    private function plan(bool $hasTokens): Plan
    {
        $rules = [
            'holder' => ['forgives' => ['case', 'spacing']],
            'fee' => ['kind' => 'number', 'forgives' => ['number-form'], 'tolerance' => ['by' => 'absolute', 'most' => '0.01']],
            'due' => ['kind' => 'date', 'forgives' => ['date-form']],
            'state' => ['crosswalk' => [['source' => 'active', 'target' => 'A'], ['source' => 'lapsed', 'target' => 'L']]],
            'note' => [],
        ];
        $pairs = [];
        foreach ($rules as $name => $ofColumn) {
            $pairs[] = ['id' => sprintf('pair-%012x', count($pairs)), 'source' => $name, 'target' => $name] + $ofColumn;
        }

        return Plan::fromJson(CanonicalJson::of([
            'formatVersion' => Plan::FORMAT_VERSION,
            'key' => [['source' => 'berth', 'target' => 'berth']],
            'columnPairs' => $pairs,
            'leftOut' => ['source' => [], 'target' => []],
            'sides' => [
                'source' => $hasTokens ? ['blankTokens' => ['-']] : ['blankTokens' => []],
                'target' => ['dateForms' => ['dd/MM/yyyy']],
            ],
        ]));
    }

    /** @return array{list<string>, string, string} findings, figures, and in which rows forgiven cells stand */
    private function tallied(Plan $plan, string $old, string $new, TallySettings $settings): array
    {
        $folder = $this->folder('work-'.bin2hex(random_bytes(4)));
        $run = new TallyRun(
            $plan,
            new Sides($this->reader($old, 'old.csv'), $this->reader($new, 'new.csv')),
            $folder,
            settings: $settings,
        );
        $findings = $run->findings();
        $this->found = array_values(
            array_filter(iterator_to_array($findings, false), static fn(RowFinding $row): bool => $row->class !== RowClass::Agreed),
        );
        $postings = $run->forgivenPostings("{$folder}/postings");

        return [
            $this->lines(),
            (string) json_encode($findings->getReturn()->toArray()),
            json_encode($postings->toArray()).hash_file('sha256', "{$folder}/postings"),
        ];
    }
}
