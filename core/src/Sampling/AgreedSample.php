<?php

declare(strict_types=1);

namespace NineTally\Core\Sampling;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\ColumnComparison;
use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Intake\Batch;
use NineTally\Core\Intake\BatchColumns;
use NineTally\Core\Intake\Reader;
use NineTally\Core\Matching\KeyForm;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Row\KeyTuple;
use NineTally\Core\Row\Side;
use NineTally\Core\Row\Sides;
use NineTally\Core\Tally\PlanComparisons;

/**
 * Draws rows that agree: those whose keys have the least hashes under a seed, those that are identical apart from those that agree only for
 * a rule. The same seed draws the same rows, whoever draws, and a larger sample holds the smaller one. Hashes are looked through in
 * stretches, from the least on, until there are enough, so that memory is bounded. Rows whose key repeats are not drawn.
 */
final readonly class AgreedSample
{
    /** Rows of a stretch that are held at once. */
    private const HELD = 250_000;

    /** Between hash, key and cells of a row that is held: no text holds this byte. */
    private const PART = "\xFD";

    /** Two to the power of 32: of so many hashes a stretch takes a part. */
    private const HASHES = 4_294_967_296;

    /** @var list<ColumnComparison> */
    private array $comparisons;

    /**
     * @param  Sides<Reader>  $readers  when their steps have run
     * @param  callable(): void  $onProgress  called now and then; whoever wants to end it throws there
     */
    public function __construct(private Plan $plan, private Sides $readers, private string $seed, private mixed $onProgress)
    {
        $this->comparisons = array_map((new PlanComparisons($plan))->ofPair(...), $plan->columnPairs);
    }

    /**
     * @param  array{identical: int, byRule: int}  $sizes  how many of each are wanted
     * @param  int  $rows  of the source, about
     * @return list<SampledRow> in the order of their hashes, those that are identical first; fewer where there are no more
     */
    public function draw(array $sizes, int $rows): array
    {
        $drawn = ['identical' => [], 'byRule' => []];
        $stretch = max(1, intdiv(self::HASHES, max(1, (int) ceil($rows / self::HELD))));
        for ($from = 0; $from < self::HASHES && $this->wants($sizes, $drawn); $from += $stretch) {
            foreach ($this->agreeing($from, $from + $stretch) as $row) {
                $drawn[$row->byRule ? 'byRule' : 'identical'][] = $row;
            }
        }
        $all = [];
        foreach ($drawn as $stratum => $of) {
            usort($of, static fn(SampledRow $one, SampledRow $other): int => [$one->hash, $one->key] <=> [$other->hash, $other->key]);
            $all = [...$all, ...array_slice($of, 0, $sizes[$stratum])];
        }

        return $all;
    }

    /**
     * @param  array{identical: int, byRule: int}  $sizes
     * @param  array{identical: list<SampledRow>, byRule: list<SampledRow>}  $drawn
     */
    private function wants(array $sizes, array $drawn): bool
    {
        return count($drawn['identical']) < $sizes['identical'] || count($drawn['byRule']) < $sizes['byRule'];
    }

    /** @return \Generator<int, SampledRow> whose hash lies in a stretch */
    private function agreeing(int $from, int $until): \Generator
    {
        $source = $this->rows(Side::Source, $from, $until);
        foreach ($this->rows(Side::Target, $from, $until) as $key => $target) {
            if (($source[$key] ?? '') === '' || $target === '') {
                continue;
            }
            [$hash, $sourceKey, $sourceCells] = explode(self::PART, $source[$key]);
            [, $targetKey, $targetCells] = explode(self::PART, $target);
            [$ofSource, $ofTarget] = [explode(KeyTuple::SEPARATOR, $sourceCells), explode(KeyTuple::SEPARATOR, $targetCells)];
            $byRule = $sourceKey !== $targetKey;
            $agrees = true;
            foreach ($this->comparisons as $pair => $comparison) {
                $class = $comparison->classify($ofSource[$pair], $ofTarget[$pair])->class;
                $byRule = $byRule || $class === CellClass::Forgiven;
                $agrees = $agrees && in_array($class, [CellClass::Forgiven, CellClass::Identical], true);
            }
            if ($agrees) {
                yield new SampledRow($byRule, $hash, explode(KeyTuple::SEPARATOR, $sourceKey));
            }
        }
    }

    /** @return array<string, string> hash, key and compared cells, by canonical key; empty where the key repeats */
    private function rows(Side $side, int $from, int $until): array
    {
        $reader = $this->readers->of($side);
        $keyPlaces = $reader->columns()->positionsOf($this->plan->keyNames($side));
        $places = $reader->columns()->positionsOf($this->plan->pairedNames($side));
        $form = $this->plan->keyForm($side, (new CauseCatalogue)->forms);
        $blank = str_repeat(KeyTuple::SEPARATOR, count($keyPlaces) - 1);
        $columns = new BatchColumns([...$keyPlaces, ...$places]);
        $rows = [];
        foreach ($reader->batches() as $batch) {
            ($this->onProgress)();
            $cells = $batch instanceof Batch ? $columns->of($batch) : [];
            foreach (array_keys($cells[$keyPlaces[0]] ?? []) as $row) {
                $key = array_map(static fn(int $place): string => $cells[$place][$row], $keyPlaces);
                $canonical = $this->canonical($form, $key);
                $hash = substr(hash('sha256', $this->seed.KeyTuple::SEPARATOR.$canonical), 0, 16);
                $begins = (int) hexdec(substr($hash, 0, 8));
                if ($begins < $from || $begins >= $until || $canonical === $blank) {
                    continue;
                }
                $rows[$canonical] = isset($rows[$canonical]) ? '' : implode(self::PART, [
                    $hash,
                    implode(KeyTuple::SEPARATOR, $key),
                    implode(KeyTuple::SEPARATOR, array_map(static fn(int $place): string => $cells[$place][$row], $places)),
                ]);
            }
        }

        return $rows;
    }

    /** @param list<string> $key */
    private function canonical(KeyForm $form, array $key): string
    {
        return $form->isPlain ? implode(KeyTuple::SEPARATOR, $key) : $form->canonical($key);
    }
}
