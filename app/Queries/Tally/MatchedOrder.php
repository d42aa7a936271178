<?php

declare(strict_types=1);

namespace App\Queries\Tally;

use App\Models\Dataset;
use App\Models\Migration;
use App\Models\PlanDraft;
use Illuminate\Support\Collection;
use NineTally\Core\Preparation\Steps\AsMatched;
use NineTally\Core\Row\Side;

/** Which datasets of a migration take numbers from what others matched, by their drafts: those others are tallied first. */
final readonly class MatchedOrder
{
    /**
     * @param  Collection<int, Dataset>  $datasets  by id, in the order of their names
     * @param  array<int, list<int>>  $needs  by id of the dataset: those that it takes numbers from
     */
    private function __construct(private Collection $datasets, private array $needs) {}

    public static function of(Migration $migration): self
    {
        $datasets = $migration->datasets()->with(['draft', 'migration'])->orderBy('name')->get()->keyBy('id');
        $ids = $datasets->mapWithKeys(static fn(Dataset $dataset): array => [mb_strtolower($dataset->name) => $dataset->id])->all();
        $needs = [];
        foreach ($datasets as $dataset) {
            $others = array_map(static fn(string $name): ?int => $ids[mb_strtolower($name)] ?? null, self::names($dataset->draft));
            $needs[$dataset->id] = array_values(array_diff(array_filter($others, is_int(...)), [$dataset->id]));
        }

        return new self($datasets, $needs);
    }

    /** The circle that a dataset stands in, as {@see circle()} says it. Most take numbers from none, and of these nothing else is read. */
    public static function circleOf(Dataset $dataset): ?string
    {
        return self::names($dataset->draftNow()) === [] ? null : self::of($dataset->migration)->circle($dataset);
    }

    /** @return list<string> of the datasets that a draft takes numbers from */
    private static function names(?PlanDraft $draft): array
    {
        $tables = array_merge(...array_map(
            static fn(Side $side): array => $draft?->rules($side)->preparation->references() ?? [],
            Side::cases(),
        ));

        return array_values(array_filter(array_map(AsMatched::datasetOf(...), $tables), is_string(...)));
    }

    /** @return list<Dataset> those that others take numbers from before these; else in the order of their names */
    public function datasets(): array
    {
        $sorted = [];
        foreach ($this->datasets as $dataset) {
            $this->add($dataset->id, $sorted, []);
        }

        return array_values($sorted);
    }

    /** @return list<int> ids of the datasets that one takes numbers from */
    public function needs(Dataset $dataset): array
    {
        return $this->needs[$dataset->id] ?? [];
    }

    /** @return string|null that a dataset takes its numbers from itself in the end, with the names on the way; null where it does not */
    public function circle(Dataset $dataset): ?string
    {
        $way = $this->way($dataset->id, $dataset->id, []);
        if ($way === null) {
            return null;
        }
        $names = array_map(fn(int $id): string => $this->datasets->get($id)->name ?? '', $way);

        return sprintf(
            '%s takes numbers from what %s matched%s: that is a circle, and none of them could be tallied first. Take one of these '.
                'steps out.',
            $dataset->name,
            $names[0],
            implode('', array_map(static fn(string $name): string => ", that from {$name}", array_slice($names, 1))),
        );
    }

    /**
     * @param  array<int, Dataset>  $sorted
     * @param  list<int>  $open
     */
    private function add(int $id, array &$sorted, array $open): void
    {
        foreach (in_array($id, $open, true) || isset($sorted[$id]) ? [] : $this->needs[$id] ?? [] as $needed) {
            $this->add($needed, $sorted, [...$open, $id]);
        }
        $dataset = $this->datasets->get($id);
        if ($dataset !== null && ! in_array($id, $open, true)) {
            $sorted[$id] ??= $dataset;
        }
    }

    /**
     * @param  list<int>  $seen
     * @return list<int>|null
     */
    private function way(int $from, int $to, array $seen): ?array
    {
        foreach (in_array($from, $seen, true) ? [] : $this->needs[$from] ?? [] as $next) {
            $rest = $next === $to ? [] : $this->way($next, $to, [...$seen, $from]);
            if ($rest !== null) {
                return [$next, ...$rest];
            }
        }

        return null;
    }
}
