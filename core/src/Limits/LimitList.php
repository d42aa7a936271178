<?php

declare(strict_types=1);

namespace NineTally\Core\Limits;

/**
 * The limits that count for a dataset: those of its plan, and of the migration's those that the plan says nothing about.
 *
 * @phpstan-import-type LimitDocument from Limit
 */
final readonly class LimitList
{
    /** @param list<array{limit: Limit, isInherited: bool, instead: Limit|null}> $all */
    private function __construct(public array $all) {}

    /**
     * @param  list<Limit>  $inherited
     * @param  list<Limit>  $own
     */
    public static function of(array $inherited, array $own): self
    {
        $all = [];
        foreach ($inherited as $limit) {
            $all[$limit->id()] = ['limit' => $limit, 'isInherited' => true, 'instead' => null];
        }
        foreach ($own as $limit) {
            $all[$limit->id()] = ['limit' => $limit, 'isInherited' => false, 'instead' => $all[$limit->id()]['limit'] ?? null];
        }

        return new self(array_values($all));
    }

    /**
     * @param  callable(Limit): Measured  $measure
     * @return list<HeldLimit> those that fail first
     */
    public function held(callable $measure): array
    {
        $held = [];
        foreach ($this->all as ['limit' => $limit, 'isInherited' => $isInherited]) {
            if ($limit->worst !== null) {
                $held[] = HeldLimit::of($limit, $measure($limit), $isInherited);
            }
        }
        $held = array_values(array_filter($held));
        // Sorting keeps the order of those that are alike.
        usort($held, static fn(HeldLimit $one, HeldLimit $other): int => $other->state->fails() <=> $one->state->fails());

        return $held;
    }

    /** @return list<array{limit: Limit, instead: Limit}> what the plan says otherwise than the migration */
    public function exceptions(): array
    {
        $exceptions = [];
        foreach ($this->all as ['limit' => $limit, 'instead' => $instead]) {
            if ($instead !== null && $instead->worst !== $limit->worst) {
                $exceptions[] = ['limit' => $limit, 'instead' => $instead];
            }
        }

        return $exceptions;
    }

    /**
     * @param  list<Limit>  $before
     * @param  list<Limit>  $after
     * @return list<string> what changed, such as "rows missing: at most 0 → at most 2"
     */
    public static function changes(array $before, array $after): array
    {
        $was = $is = $changes = [];
        foreach ($before as $limit) {
            $was[$limit->id()] = $limit;
        }
        foreach ($after as $limit) {
            $is[$limit->id()] = $limit;
        }
        foreach ($was + $is as $id => $limit) {
            $words = static fn(?Limit $one): string => $one === null ? 'none' : $one->acceptable();
            if ($words($was[$id] ?? null) !== $words($is[$id] ?? null)) {
                $changes[] = $limit->name($limit->of ?? '').': '.$words($was[$id] ?? null).' → '.$words($is[$id] ?? null);
            }
        }

        return $changes;
    }
}
