<?php

declare(strict_types=1);

namespace NineTally\Core\Plan;

/**
 * Joins what two people made of the same draft (a three-way merge): each change that the other did not touch is kept. Where both changed
 * the same
 * to something else it is a clash, and somebody chooses.
 *
 * Objects are joined member by member; lists of what has an id, or is a bridge, item by item; lists of names as sets. The key, and any
 * other
 * list, is one thing.
 */
final class DraftJoin
{
    /** @var list<string> pointers (RFC 6901) at which mine was chosen */
    private array $chosen;

    /** @var list<array{at: string, base: mixed, mine: mixed, theirs: mixed}> null: not there */
    public array $clashes = [];

    /** @var array<string, mixed> with theirs wherever nobody has chosen yet */
    public readonly array $document;

    /** Of lists whose members are names, in no order that matters. */
    private const SETS = ['forgives', 'source', 'target', 'blankTokens'];

    /**
     * @param  array<array-key, mixed>  $base  what both began with
     * @param  array<array-key, mixed>  $mine
     * @param  array<array-key, mixed>  $theirs
     * @param  list<string>  $mineAt  pointers of clashes that are settled by mine
     * @param  list<string>  $theirsAt  and by theirs
     */
    public function __construct(array $base, array $mine, array $theirs, array $mineAt = [], private readonly array $theirsAt = [])
    {
        $this->chosen = $mineAt;
        $joined = $this->join($base, $mine, $theirs, '');
        /** @var array<string, mixed> $document */
        $document = is_array($joined) ? $joined : $theirs;
        $this->document = $document;
    }

    private function join(mixed $base, mixed $mine, mixed $theirs, string $at): mixed
    {
        return match (true) {
            $this->same($mine, $theirs), $this->same($base, $mine) => $theirs,
            $this->same($base, $theirs) => $mine,
            $at === '/key' => $this->clash($base, $mine, $theirs, $at),
            $this->areObjects($mine, $theirs) => $this->members($base, $mine, $theirs, $at),
            $this->haveIdentity($base, $mine, $theirs) => $this->items($base, $mine, $theirs, $at),
            $this->areSets($base, $mine, $theirs, $at) => $this->set((array) $base, (array) $mine, (array) $theirs),
            default => $this->clash($base, $mine, $theirs, $at),
        };
    }

    private function clash(mixed $base, mixed $mine, mixed $theirs, string $at): mixed
    {
        if (in_array($at, $this->chosen, true)) {
            return $mine;
        }
        if (! in_array($at, $this->theirsAt, true)) {
            $this->clashes[] = ['at' => $at, 'base' => $base, 'mine' => $mine, 'theirs' => $theirs];
        }

        return $theirs;
    }

    /** @return array<string, mixed> */
    private function members(mixed $base, mixed $mine, mixed $theirs, string $at): array
    {
        [$base, $mine, $theirs] = [(array) $base, (array) $mine, (array) $theirs];
        $joined = [];
        foreach (array_unique([...array_keys($theirs), ...array_keys($mine)]) as $name) {
            $value = $this->join(
                $base[$name] ?? null,
                $mine[$name] ?? null,
                $theirs[$name] ?? null,
                "{$at}/".strtr((string) $name, ['~' => '~0', '/' => '~1']),
            );
            if ($value !== null) {
                $joined[(string) $name] = $value;
            }
        }

        return $joined;
    }

    /** @return list<mixed> in the order of theirs; what only mine has stands after what it follows there */
    private function items(mixed $base, mixed $mine, mixed $theirs, string $at): array
    {
        [$base, $mine, $theirs] = array_map($this->byIdentity(...), [$base, $mine, $theirs]);
        $order = fn(array $of, array $within): array => array_values(array_intersect(array_keys($of), array_keys($within)));
        $isMovedByMe = $order($base, $mine) !== $order($mine, $base);
        if ($isMovedByMe && $order($base, $theirs) !== $order($theirs, $base) && $order($mine, $theirs) !== $order($theirs, $mine)) {
            return array_values((array) $this->clash(array_values($base), array_values($mine), array_values($theirs), $at));
        }
        [$leading, $other] = $isMovedByMe ? [$mine, $theirs] : [$theirs, $mine];
        $identities = array_map(strval(...), array_keys($leading));
        $before = null;
        foreach (array_map(strval(...), array_keys($other)) as $identity) {
            if (! in_array($identity, $identities, true)) {
                $place = $before === null ? 0 : (int) array_search($before, $identities, true) + 1;
                array_splice($identities, $place, 0, [$identity]);
            }
            $before = $identity;
        }
        $joined = [];
        foreach ($identities as $identity) {
            $value = $this->join(
                $base[$identity] ?? null,
                $mine[$identity] ?? null,
                $theirs[$identity] ?? null,
                "{$at}/".strtr($identity, ['~' => '~0', '/' => '~1']),
            );
            if ($value !== null) {
                $joined[] = $value;
            }
        }

        return $joined;
    }

    /**
     * @param  array<array-key, mixed>  $base
     * @param  array<array-key, mixed>  $mine
     * @param  array<array-key, mixed>  $theirs
     * @return list<mixed>
     */
    private function set(array $base, array $mine, array $theirs): array
    {
        $kept = array_filter($theirs, static fn(mixed $one): bool => in_array($one, $mine, true) || ! in_array($one, $base, true));
        $new = array_filter($mine, static fn(mixed $one): bool => ! in_array($one, $base, true) && ! in_array($one, $theirs, true));

        return [...array_values($kept), ...array_values($new)];
    }

    /** @return array<string, mixed> */
    private function byIdentity(mixed $list): array
    {
        $items = [];
        foreach (is_array($list) ? $list : [] as $item) {
            $items[$this->identity($item) ?? ''] = $item;
        }

        return $items;
    }

    /** A pair and a step have an id; a bridge its source key, an entry of a crosswalk its value, a chosen row side and key. */
    private function identity(mixed $item): ?string
    {
        return match (true) {
            ! is_array($item) || array_is_list($item) => null,
            is_string($item['id'] ?? null) => $item['id'],
            isset($item['source'], $item['target']) => CanonicalJson::of($item['source']),
            isset($item['side'], $item['key']) => CanonicalJson::of([$item['side'], $item['key']]),
            default => null,
        };
    }

    private function haveIdentity(mixed ...$lists): bool
    {
        foreach ($lists as $list) {
            if (! is_array($list ?? []) || ! array_is_list($list ?? [])) {
                return false;
            }
            $identities = array_map($this->identity(...), $list ?? []);
            if (in_array(null, $identities, true) || count(array_unique($identities)) < count($identities)) {
                return false;
            }
        }

        return array_filter($lists) !== [];
    }

    private function areSets(mixed $base, mixed $mine, mixed $theirs, string $at): bool
    {
        $lists = [$base ?? [], $mine ?? [], $theirs ?? []];
        foreach ($lists as $list) {
            if (! is_array($list) || ! array_is_list($list) || array_filter($list, is_array(...)) !== []) {
                return false;
            }
        }

        return in_array(substr($at, (int) strrpos($at, '/') + 1), self::SETS, true);
    }

    private function areObjects(mixed $mine, mixed $theirs): bool
    {
        return is_array($mine) && is_array($theirs) && ! array_is_list($mine) && ! array_is_list($theirs);
    }

    private function same(mixed $one, mixed $other): bool
    {
        return ($one === null) === ($other === null) && CanonicalJson::of($one) === CanonicalJson::of($other);
    }
}
