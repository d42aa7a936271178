<?php

declare(strict_types=1);

namespace NineTally\Tests\Plan;

use NineTally\Core\Plan\DraftJoin;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Two people change the same draft: what does not touch is kept of both, what meets is chosen. */
final class DraftJoinTest extends TestCase
{
    private const BASE = [
        'key' => [['source' => 'basin', 'target' => 'basin']],
        'columnPairs' => [
            ['id' => 'a', 'source' => 'fee', 'target' => 'fee', 'kind' => 'text'],
            ['id' => 'b', 'source' => 'holder', 'target' => 'owner', 'kind' => 'text', 'forgives' => ['spacing']],
        ],
        'leftOut' => ['source' => ['clerk'], 'target' => []],
        'sides' => ['source' => ['preparation' => [['id' => 's1', 'kind' => 'one'], ['id' => 's2', 'kind' => 'two']]]],
    ];

    /**
     * @param  \Closure(array<array-key, mixed>): array<array-key, mixed>  $mine
     * @param  \Closure(array<array-key, mixed>): array<array-key, mixed>  $theirs
     * @param  \Closure(array<array-key, mixed>): array<array-key, mixed>  $joined
     * @param  list<string>  $clashes
     */
    #[DataProvider('changes')]
    public function test_keeps_what_only_one_has_changed_and_names_what_both_have(
        \Closure $mine,
        \Closure $theirs,
        \Closure $joined,
        array $clashes = [],
    ): void {
        $join = new DraftJoin(self::BASE, $mine(self::BASE), $theirs(self::BASE));

        self::assertSame($clashes, array_column($join->clashes, 'at'));
        self::assertEquals($joined(self::BASE), $join->document);
    }

    /** @return iterable<string, array<array-key, mixed>> */
    public static function changes(): iterable
    {
        $set = static fn(mixed $value, string|int ...$path): \Closure => static fn(array $document): array => self::with(
            $document,
            array_values($path),
            $value,
        );
        $both = static fn(\Closure $one, \Closure $other): \Closure => static fn(array $document): mixed => $other($one($document));
        $number = $set('number', 'columnPairs', 0, 'kind');
        $case = $set(['spacing', 'case'], 'columnPairs', 1, 'forgives');
        $accents = $set(['spacing', 'accents'], 'columnPairs', 1, 'forgives');
        yield 'rules of two pairs' => [$number, $case, $both($number, $case)];
        yield 'two causes of one pair' => [$case, $accents, $set(['spacing', 'accents', 'case'], 'columnPairs', 1, 'forgives')];
        yield 'the same change twice' => [$number, $number, $number];
        yield 'one kind, two ways' => [
            $number,
            $set('date', 'columnPairs', 0, 'kind'),
            $set('date', 'columnPairs', 0, 'kind'),
            ['/columnPairs/a/kind'],
        ];
        $without = static fn(array $document): array => ['columnPairs' => array_slice((array) $document['columnPairs'], 1)] + $document;
        yield 'a pair gone here and changed there' => [$without, $number, $number, ['/columnPairs/a']];
        yield 'a pair gone here and untouched there' => [$without, $case, $both($case, $without)];
        $new = ['id' => 'c', 'source' => 'note', 'target' => 'note'];
        $other = ['id' => 'd', 'source' => 'boat', 'target' => 'boat'];
        yield 'a new pair on each side' => [
            $set($new, 'columnPairs', 2),
            $set($other, 'columnPairs', 2),
            $both($set($new, 'columnPairs', 2), $set($other, 'columnPairs', 3)),
        ];
        yield 'the key is one thing' => [
            $set([['source' => 'berth', 'target' => 'berth']], 'key'),
            $set(['case'], 'key', 0, 'forgives'),
            $set(['case'], 'key', 0, 'forgives'),
            ['/key'],
        ];
        yield 'names that are left out' => [
            $set(['clerk', 'note'], 'leftOut', 'source'),
            $set([], 'leftOut', 'source'),
            $set(['note'], 'leftOut', 'source'),
        ];
        $steps = ['sides', 'source', 'preparation'];
        $moved = $set([['id' => 's2', 'kind' => 'two'], ['id' => 's1', 'kind' => 'one']], ...$steps);
        $off = $set(true, ...[...$steps, 0, 'off']);
        yield 'steps moved here and switched off there' => [
            $moved,
            $off,
            $set([['id' => 's2', 'kind' => 'two'], ['id' => 's1', 'kind' => 'one', 'off' => true]], ...$steps),
        ];
        yield 'a part that nobody had' => [
            $set(['blankTokens' => ['NULL']], 'sides', 'target'),
            $set(['fee' => ['required' => true]], 'demands'),
            $both($set(['fee' => ['required' => true]], 'demands'), $set(['blankTokens' => ['NULL']], 'sides', 'target')),
        ];
    }

    /**
     * @param  array<array-key, mixed>  $document
     * @param  list<string|int>  $path
     * @return array<array-key, mixed>
     */
    private static function with(array $document, array $path, mixed $value): array
    {
        $name = array_shift($path);
        $below = $document[$name] ?? [];
        $document[$name] = $path === [] ? $value : self::with(is_array($below) ? $below : [], $path, $value);

        return $document;
    }

    public function test_a_clash_is_settled_by_the_one_that_is_chosen(): void
    {
        /** @return array<string, mixed> */
        $as = static function (string $kind): array {
            $document = self::BASE;
            $document['columnPairs'][0]['kind'] = $kind;

            return $document;
        };
        $mine = new DraftJoin(self::BASE, $as('number'), $as('date'), ['/columnPairs/a/kind']);
        $theirs = new DraftJoin(self::BASE, $as('number'), $as('date'), [], ['/columnPairs/a/kind']);

        self::assertSame([[], []], [$mine->clashes, $theirs->clashes]);
        self::assertEquals([$as('number'), $as('date')], [$mine->document, $theirs->document]);
    }
}
