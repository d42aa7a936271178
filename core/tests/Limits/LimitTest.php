<?php

declare(strict_types=1);

namespace NineTally\Tests\Limits;

use NineTally\Core\Limits\HeldLimit;
use NineTally\Core\Limits\Limit;
use NineTally\Core\Limits\LimitFigure;
use NineTally\Core\Limits\LimitList;
use NineTally\Core\Limits\LimitState;
use NineTally\Core\Limits\Measured;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Whether a figure is good enough, and how far it is from the worst that is. */
final class LimitTest extends TestCase
{
    /** @return iterable<string, array{string, string, Measured, string, string|null}> */
    public static function figures(): iterable
    {
        yield 'just inside' => ['rows-missing', '2', Measured::count(2), 'holds', 'none left'];
        yield 'just outside' => ['rows-missing', '2', Measured::count(3), 'fails', '1 beyond'];
        // 99.9999 % is shown as 99.99 %, and is no 100 %.
        yield 'a share that is shown like the limit and is less' => [
            'values-right',
            '99.9999',
            Measured::share(999_998, 1_000_000),
            'fails',
            'under 0.01 points beyond',
        ];
        yield 'a share that is exactly the limit' => ['values-right', '99.9999', Measured::share(999_999, 1_000_000), 'holds', 'none left'];
        yield 'a third' => ['values-lost', '33.33', Measured::share(1, 3), 'fails', 'under 0.01 points beyond'];
        yield 'at most a share' => ['values-lost', '0.5', Measured::share(2, 1_000), 'holds', '0.3 points left'];
        yield 'nothing of nothing' => ['values-right', '0', Measured::share(0, 0), 'no-figure', null];
        yield 'an amount of any length' => [
            'tolerance-net',
            '0.000000000000000000001',
            Measured::amount('0.0000000000000000000011'),
            'fails',
            '0.0000000000000000000001 beyond',
        ];
        yield 'hours' => ['extract-gap', '24', Measured::amount('1224.5'), 'fails', '1,200.5 h beyond'];
        yield 'what nobody looked at' => ['wrong-by-eye', '1', Measured::none('nobody looked'), 'no-figure', null];
    }

    #[DataProvider('figures')]
    public function test_exact_figures_decide(string $figure, string $worst, Measured $measured, string $state, ?string $distance): void
    {
        $held = HeldLimit::of(Limit::fromArray(['figure' => $figure, 'worst' => $worst]), $measured, false);

        self::assertSame([LimitState::from($state), $distance], [$held?->state, $held?->distance()]);
    }

    public function test_the_plan_makes_exceptions_from_what_it_inherits_and_what_fails_comes_first(): void
    {
        $limit = static fn(string $figure, ?string $worst): Limit => Limit::fromArray(['figure' => $figure, 'worst' => $worst]);
        $list = LimitList::of(
            [$limit('rows-extra', '0'), $limit('rows-missing', '0'), $limit('values-right', '99')],
            [$limit('rows-missing', '5'), $limit('values-right', null), $limit('rows-unkeyed', '0')],
        );
        $held = $list->held(static fn(Limit $of): Measured => Measured::count($of->figure === LimitFigure::RowsMissing ? 6 : 0));

        self::assertSame(
            [['rows-missing', false, '6'], ['rows-extra', true, '0'], ['rows-unkeyed', false, '0']],
            array_map(static fn(HeldLimit $one): array => [$one->limit->id(), $one->isInherited, $one->value()], $held),
        );
        self::assertSame(
            ['rows missing: at most 5 instead of 0', 'values right: no limit here instead of 99'],
            array_map(
                static fn(array $one): string => $one['limit']->sentence().' instead of '.$one['instead']->worst,
                $list->exceptions(),
            ),
        );
    }

    public function test_what_makes_no_sense_is_said(): void
    {
        $problem = static fn(string $figure, string $worst = '0', ?string $of = null): ?string => Limit::fromArray(
            ['figure' => $figure, 'worst' => $worst] + ($of === null ? [] : ['of' => $of]),
        )->problem();

        self::assertStringContainsString('cannot be narrowed', (string) $problem('rows-changed', of: '2'));
        self::assertStringContainsString('of which one', (string) $problem('total-difference'));
        self::assertStringContainsString('more than all', (string) $problem('values-lost', '100.1'));
        self::assertStringContainsString('no whole number', (string) $problem('rows-missing', '0.5'));
        self::assertNull($problem('rows-missing', of: '2'));
    }
}
