<?php

declare(strict_types=1);

namespace Tests\Feature\Demo;

use Database\Demo\BerthCharges;
use Database\Demo\BerthChargesPlan;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Preparation\PartStack;
use NineTally\Core\Preparation\PreparedReader;
use NineTally\Core\Preparation\PreparedSide;
use NineTally\Core\Preparation\References;
use NineTally\Core\Preparation\ReferenceShelf;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\TallyRun;
use NineTally\Core\Tally\Workspace;
use PHPUnit\Framework\TestCase;

/** Wide against long, with look-ups: the prepared sides against the truth, which comes from how they were made. */
final class BerthChargesTest extends TestCase
{
    public function test_the_prepared_sides_meet_and_differ_exactly_as_was_planted(): void
    {
        $workspace = Workspace::make();
        try {
            $demo = new BerthCharges(7);
            $made = $demo->write($workspace->path);
            $plan = Plan::fromJson(CanonicalJson::of(BerthChargesPlan::document()));
            $references = self::references(['Basins' => $made['Basins'], 'Length bands' => $made['Length bands']], $workspace->path);
            $findings = (new TallyRun(
                $plan,
                Sides::each(
                    fn(Side $side): Reader => $this->prepared($plan, $side, $made[$side->value], $references, $workspace->path),
                ),
                $workspace->path,
            ))->findings();
            $cells = [];
            foreach ($findings as $row) {
                foreach ($row->cells as $cell) {
                    $cells[(string) $row->key?->asCsv()] = $cell->cause;
                }
            }
            $summary = $findings->getReturn();
        } finally {
            $workspace->remove();
        }
        ksort($cells);
        $expected = $made['truth']['cells'];
        ksort($expected);

        self::assertSame($expected, $cells);
        foreach (['source' => $summary->source, 'target' => $summary->target] as $side => $counts) {
            self::assertEquals($made['truth']['rows'][$side], array_diff_key($counts->toArray(), ['unkeyed' => 0, 'repeated' => 0]), $side);
        }
        $sums = [];
        foreach ($summary->reports->totals[0]->groups as $group) {
            $sums[$group['labels'][0]] = array_map(
                static fn(?string $sum): int => (int) round(100 * (float) $sum),
                ['source' => $group['source'], 'target' => $group['target']],
            );
        }
        self::assertEquals($made['truth']['sums'], $sums);
        self::assertCount(1, array_filter($summary->reports->totals[0]->groups, static fn(array $group): bool => $group['cancels']));
    }

    /** @param list<string> $paths */
    private function prepared(Plan $plan, Side $side, array $paths, References $references, string $folder): PreparedReader
    {
        $parts = array_map(
            static fn(string $path): array => ['reader' => self::withItsTotals($path), 'label' => basename($path)],
            $paths,
        );
        $prepared = PreparedSide::in("{$folder}/prepared-{$side->value}");
        $prepared->make(
            new PartStack($parts === [] ? self::fail('The demo has no parts.') : $parts),
            $plan->side($side)->preparation,
            $side->value,
            static fn(int $bytes, int $records) => null,
            $references,
        );

        return new PreparedReader($prepared, $side->value);
    }

    /** @param array<string, string> $paths by name */
    private static function references(array $paths, string $folder): References
    {
        return new ReferenceShelf(
            array_map(
                static fn(string $path): \Closure => static fn(): PartStack => new PartStack([
                    ['reader' => self::withItsTotals($path), 'label' => basename($path)],
                ]),
                $paths,
            ),
            [],
            $folder,
        );
    }

    /** The demo leaves the totals below its parts out by a step of the plan. */
    private static function withItsTotals(string $path): Reader
    {
        $catalogue = new ReaderCatalogue;
        $format = $catalogue->find($path, basename($path))->format->with(['skipBelow' => 0]);

        return $catalogue->openAs($path, basename($path), $format);
    }
}
