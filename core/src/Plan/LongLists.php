<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/**
 * Shortens long lists of values before a plan is held against its schema: bridges and entries of crosswalks may be tens of thousands, and a
 * validator that keeps what it finds of each needs kilobytes for one. Each has been looked at here, as the schema says it; of a list in
 * which one is not as it must be that one stays, so that the schema says what is wrong.
 */
final class LongLists
{
    /** Shorter ones are not worth it. */
    private const LONG = 200;

    /** The document with one item of each of these lists. */
    public readonly mixed $shorter;

    /** @var array<string, string> place in the shorter document => place in the whole one */
    private array $moved = [];

    public function __construct(mixed $document)
    {
        $shorter = $document instanceof \stdClass ? clone $document : $document;
        if ($shorter instanceof \stdClass) {
            $this->shorten($shorter, 'bridges', '', self::isBridge(...));
            $this->shorten($shorter, 'refusedBridges', '', self::isRefused(...));
            $this->shortenEach($shorter, 'columnPairs', '', 'crosswalk');
            foreach (['sides', 'references'] as $name) {
                if (($shorter->{$name} ?? null) instanceof \stdClass) {
                    $shorter->{$name} = clone $shorter->{$name};
                    foreach (get_object_vars($shorter->{$name}) as $of => $prepared) {
                        if ($prepared instanceof \stdClass) {
                            $shorter->{$name}->{$of} = $prepared = clone $prepared;
                            $this->shortenEach($prepared, 'preparation', "/{$name}/{$of}", 'entries');
                        }
                    }
                }
            }
        }
        $this->shorter = $shorter;
    }

    /** Where something stands in the whole document that has this place in the shorter one. */
    public function place(string $pointer): string
    {
        foreach ($this->moved as $from => $to) {
            if ($pointer === $from || str_starts_with($pointer, "{$from}/")) {
                return $to.substr($pointer, strlen($from));
            }
        }

        return $pointer;
    }

    /** @param string $at the place of the object */
    private function shortenEach(\stdClass $object, string $name, string $at, string $list): void
    {
        if (! is_array($object->{$name} ?? null)) {
            return;
        }
        $items = [];
        foreach ($object->{$name} as $position => $item) {
            $items[] = $item = $item instanceof \stdClass ? clone $item : $item;
            if ($item instanceof \stdClass) {
                $this->shorten($item, $list, "{$at}/{$name}/{$position}", self::isEntry(...));
            }
        }
        $object->{$name} = $items;
    }

    /** @param \Closure(mixed): bool $isGood */
    private function shorten(\stdClass $object, string $name, string $at, \Closure $isGood): void
    {
        $items = $object->{$name} ?? null;
        if (! is_array($items) || count($items) < self::LONG) {
            return;
        }
        $stays = 0;
        foreach (array_values($items) as $position => $item) {
            if (! $isGood($item)) {
                $stays = $position;

                break;
            }
        }
        $object->{$name} = array_slice($items, $stays, 1);
        $this->moved["{$at}/{$name}/0"] = "{$at}/{$name}/{$stays}";
    }

    private static function isBridge(mixed $item): bool
    {
        $parts = $item instanceof \stdClass ? get_object_vars($item) : [];

        return self::isKey($parts['source'] ?? null) &&
            self::isKey($parts['target'] ?? null) &&
            count($parts) === 2 + (int) in_array($parts['right'] ?? null, ['source', 'target'], true);
    }

    private static function isRefused(mixed $item): bool
    {
        return self::isBridge($item) && $item instanceof \stdClass && ! isset($item->right);
    }

    private static function isKey(mixed $cells): bool
    {
        return is_array($cells) && $cells !== [] && array_filter($cells, is_string(...)) === $cells;
    }

    private static function isEntry(mixed $item): bool
    {
        $parts = $item instanceof \stdClass ? get_object_vars($item) : [];

        return count($parts) === 2 && is_string($parts['source'] ?? null) && is_string($parts['target'] ?? null);
    }
}
