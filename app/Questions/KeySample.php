<?php

declare(strict_types=1);

namespace App\Questions;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\Row;
use NineTally\Core\Row\Side;

/**
 * Draws the rows of some keys on both sides: the same keys, for a key is in the sample by its hash alone. What is found on them is true
 * of all rows but for chance.
 */
final readonly class KeySample implements Question
{
    /** About so many keys are drawn. */
    public const KEYS = 3_000;

    /** No more cells than this are held of a side, however wide its rows are. */
    private const MOST_CELLS = 600_000;

    private const ROWS_BETWEEN_REPORTS = 10_000;

    /** @param string $plan as JSON: the key, and what both sides declare about its cells, decide which rows meet */
    public function __construct(private BothSides $sides, private string $plan) {}

    public function kind(): string
    {
        return 'rows-of-some-keys';
    }

    public function about(): array
    {
        return [$this->sides->about(), ...Plan::fromJson($this->plan)->keyRules()];
    }

    public function answer(QuestionContext $material, \Closure $onProgress): array
    {
        $plan = Plan::fromJson($this->plan);
        $forms = (new CauseCatalogue)->forms;
        $readers = ['source' => $this->sides->reader($material, Side::Source), 'target' => $this->sides->reader($material, Side::Target)];
        $rows = max(1, ...array_map(fn(Side $side): int => $this->sides->delivery($side)->delivered_count, Side::cases()));
        $width = max($readers['source']->columns()->count(), $readers['target']->columns()->count());
        $keys = max(50, min(self::KEYS, intdiv(self::MOST_CELLS, max(1, $width))));
        $oneIn = max(1, (int) ceil($rows / $keys));
        $drawn = [];
        $total = $readers['source']->bytes() + $readers['target']->bytes();
        $before = 0;
        foreach (Side::cases() as $side) {
            $reader = $readers[$side->value];
            $form = $plan->keyForm($side, $forms);
            $places = $reader->columns()->positionsOf($plan->keyNames($side));
            $bytes = $seen = 0;
            $held = [];
            foreach ($reader->records(static function (int $read) use (&$bytes): void {
                $bytes = $read;
            }) as $record) {
                if (++$seen % self::ROWS_BETWEEN_REPORTS === 0) {
                    $onProgress($before + $bytes, $total);
                }
                if (! $record instanceof Row) {
                    continue;
                }
                $key = $form->canonical(array_map(static fn(int $place): string => $record->cells[$place], $places));
                // A key that stands in very many rows must not fill the sample.
                if (crc32($key) % $oneIn === 0 && count($held) < 4 * $keys) {
                    $held[] = [$reader->place($record->line)->packed(), $record->cells];
                }
            }
            $drawn[$side->value] = ['columns' => $reader->columns()->names, 'rows' => $held];
            $before += $reader->bytes();
        }
        $material->samples->keep((new Answers)->digest($this), $drawn);

        return ['oneIn' => $oneIn, 'rows' => array_map(static fn(array $side): int => count($side['rows']), $drawn)];
    }
}
