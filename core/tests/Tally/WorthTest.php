<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Comparison\SignedDifference;
use NineTally\Core\Comparison\Worth;
use NineTally\Core\Tally\WorthCount;
use NineTally\Core\Value\Decimal;
use NineTally\Core\Value\Kind;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\TestCase;

/** What differences come to, exact whatever their length. */
final class WorthTest extends TestCase
{
    public function test_differences_of_thirty_digits_are_added_up_exactly(): void
    {
        $worth = $this->worth([
            ['0', '100000000000000000000000000000.01'],
            ['100000000000000000000000000000.02', '0'],
            ['5', '5.0'],
            [null, '0.5'],
            ['7', null],
        ]);

        self::assertSame(
            [
                'up' => ['cells' => 2, 'sum' => '100000000000000000000000000000.51', 'most' => '100000000000000000000000000000.01'],
                'down' => ['cells' => 2, 'sum' => '-100000000000000000000000000007.02', 'most' => '-100000000000000000000000000000.02'],
                'nought' => 1,
                'net' => '-6.51',
                'largest' => '-100000000000000000000000000000.02',
            ],
            $worth->toArray(),
        );
    }

    /** Law: two piles are worth what their cells are worth together, kept in between or not. */
    public function test_worth_adds_up(): void
    {
        mt_srand(16);
        foreach (range(1, 40) as $_) {
            [$one, $other] = [$this->cells(mt_rand(1, 9)), $this->cells(mt_rand(1, 9))];
            self::assertEquals(
                $this->worth([...$one, ...$other])->toArray(),
                Worth::fromArray($this->worth($one)->toArray())->plus($this->worth($other))->toArray(),
            );
        }
    }

    public function test_plain_numbers_differ_by_the_machines_integers_as_they_do_by_decimals(): void
    {
        mt_srand(20_261_130);
        $reading = new Reading(Kind::Number);
        $number = static function (): string {
            $digits = (string) mt_rand(0, 10 ** mt_rand(0, 12));
            $digits = mt_rand(0, 2) === 0 ? $digits : substr_replace($digits, '.', mt_rand(0, strlen($digits)), 0);

            return (mt_rand(0, 4) === 0 ? '-' : '').str_repeat('0', mt_rand(0, 5) === 0 ? 2 : 0).$digits.str_repeat('0', mt_rand(0, 3));
        };
        $plain = 0;
        for ($nth = 0; $nth < 5_000; $nth++) {
            $source = $number();
            $target = mt_rand(0, 3) === 0 ? $source.(str_contains($source, '.') ? '0' : '.00') : $number();
            $difference = SignedDifference::ofPlain($source, $target);
            if ($difference !== null) {
                $plain++;
                $other = SignedDifference::between($reading->number($source), $reading->number($target));
                self::assertSame($other?->value->canonical(), $difference->value->canonical(), "{$source} and {$target}");
                self::assertSame($other?->relative, $difference->relative, "{$source} and {$target}");
            }
        }
        self::assertGreaterThan(2_000, $plain);
        self::assertNull(SignedDifference::ofPlain('1234567890123456', '1'), 'A double does not hold it.');
        self::assertNull(SignedDifference::ofPlain('1.5', '+1'));
    }

    public function test_what_is_too_long_to_add_up_has_no_difference(): void
    {
        self::assertNull(SignedDifference::between($this->number('1e9000'), $this->number('1')));
        $huge = SignedDifference::between($this->number('1e400'), $this->number('3e400'));
        self::assertSame(['2e400', null], [$huge?->value->canonical(), $huge?->relative]);
        self::assertSame(-0.333333, SignedDifference::between($this->number('-3'), $this->number('-4'))?->relative);
    }

    /** @param list<array{string|null, string|null}> $cells */
    private function worth(array $cells): Worth
    {
        $count = new WorthCount;
        foreach ($cells as [$source, $target]) {
            $difference = SignedDifference::between($this->number($source), $this->number($target));
            $count->add($difference->value ?? self::fail('These are numbers.'));
        }

        return $count->worth() ?? self::fail('There are cells.');
    }

    /** @return list<array{string|null, string|null}> */
    private function cells(int $cells): array
    {
        return array_map(static fn(): array => [(string) (mt_rand(-999, 999) / 4), (string) (mt_rand(-999, 999) / 8)], range(1, $cells));
    }

    private function number(?string $written): ?Decimal
    {
        return $written === null ? null : (new Reading(Kind::Number))->number($written);
    }
}
