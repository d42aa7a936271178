<?php

declare(strict_types=1);

namespace NineTally\Core\Tests\Likeness;

use NineTally\Core\Likeness\FoldedText;
use NineTally\Core\Likeness\LikenessKind;
use NineTally\Core\Likeness\Measures\DamerauLevenshtein;
use NineTally\Core\Likeness\Measures\JaroWinkler;
use NineTally\Core\Value\Reading;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** Published values, and what holds of every measure. */
final class MeasuresTest extends TestCase
{
    /** From Winkler, "String comparator metrics and enhanced decision rules" (1990), and his later tables. */
    public function test_names_are_as_alike_as_winkler_says(): void
    {
        $published = [
            ['MARTHA', 'MARHTA', 0.961], ['DWAYNE', 'DUANE', 0.840], ['DIXON', 'DICKSONX', 0.813], ['SHACKLEFORD', 'SHACKELFORD', 0.982],
            ['DUNNINGHAM', 'CUNNIGHAM', 0.896], ['NICHLESON', 'NICHULSON', 0.956], ['JONES', 'JOHNSON', 0.832], ['MASSEY', 'MASSIE', 0.933],
            ['ABROMS', 'ABRAMS', 0.922], ['JERALDINE', 'GERALDINE', 0.926], ['MICHELLE', 'MICHAEL', 0.921], ['JULIES', 'JULIUS', 0.933],
        ];
        foreach ($published as [$one, $other, $likeness]) {
            self::assertSame($likeness, round(JaroWinkler::of($one, $other), 3), "{$one} and {$other}");
        }
        self::assertSame([0.0, 1.0], [JaroWinkler::of('abc', 'xyz'), JaroWinkler::of('Þór', 'Þór')]);
    }

    /** Damerau (1964); "CA" and "ABC" are two apart only where what was swapped may be touched again (Lowrance and Wagner 1975). */
    public function test_codes_are_as_far_apart_as_published(): void
    {
        $published = [
            ['CA', 'ABC', 2], ['kitten', 'sitting', 3], ['TEUSDAY', 'TUESDAY', 1], ['', 'abc', 3], ['abc', '', 3], ['a cat', 'an abct', 3],
            ['øl', 'lø', 1], ['rosettacode', 'raisethysword', 8], ['same', 'same', 0],
        ];
        foreach ($published as [$one, $other, $distance]) {
            self::assertSame($distance, DamerauLevenshtein::distance($one, $other), "\"{$one}\" and \"{$other}\"");
        }
    }

    /** @param list<array{string, string, float, float}> $pairs two values, and between what their likeness lies */
    #[DataProvider('fitting')]
    public function test_each_kind_fits_what_it_is_for(LikenessKind $kind, array $pairs): void
    {
        $measure = $kind->measure(new FoldedText(['street' => 'st']));
        foreach ($pairs as [$one, $other, $least, $most]) {
            $likeness = $measure->likeness($this->made($kind, $one), $this->made($kind, $other));
            self::assertTrue($likeness >= $least && $likeness <= $most, "{$one} and {$other}: {$likeness}");
        }
    }

    /** @return iterable<string, array{LikenessKind, list<array{string, string, float, float}>}> */
    public static function fitting(): iterable
    {
        yield 'codes' => [LikenessKind::Code, [
            ['KB-0147', 'KB 0147', 1, 1], ['KB-0147', 'KB-0174', 0.8, 0.9], ['KB-0147', 'NQ-9930', 0, 0.3],
        ]];
        yield 'names' => [LikenessKind::Name, [['Thornøy', 'THORNOY', 1, 1], ['Hester', 'Hestor', 0.9, 0.99], ['Hester', 'Wanda', 0, 0.5]]];
        yield 'words' => [
            LikenessKind::Words,
            [
                ['Thornøy, Ezekiel', 'Ezekiel Thornoy', 1, 1],
                ['Wherry & Sons Ltd.', 'WHERRY SONS', 1, 1],
                ['E. Thornøy', 'Ezekiel Thornøy', 0.94, 0.96],
                ['12 Lock Street, Wherrymoor', 'Wherrymoor, Lock St. 12', 1, 1],
                ['Salt Quay S.A.', 'Salt Quay SA', 1, 1],
                ['Ltd', 'Ltd', 1, 1],
                ['Ezekiel Thornøy', 'Wanda Marrow', 0, 0.1],
            ],
        ];
        yield 'numbers' => [
            LikenessKind::Number,
            [['12.50', '12.5', 1, 1], ['100', '97', 0.96, 0.98], ['5', '-5', 0, 0], ['0', '0.0', 1, 1]],
        ];
        yield 'dates' => [
            LikenessKind::Date,
            [['2026-03-01', '2026-03-01', 1, 1], ['2026-03-01', '2026-02-28', 0.99, 1], ['2026-03-01', '2020-03-01', 0, 0]],
        ];
        yield 'what was cut' => [
            LikenessKind::Beginning,
            [
                ['The lock keeper of the low', 'The lock keeper of the lower basin', 1, 1],
                ['The lock', 'A quay', 0, 0.1],
                ['The', 'The lock', 0, 0],
            ],
        ];
    }

    public function test_a_blank_is_like_nothing(): void
    {
        foreach (LikenessKind::cases() as $kind) {
            self::assertNull($this->made($kind, ''), $kind->value);
            self::assertNull($kind->measure(new FoldedText)->made('n/a', new Reading($kind->kind(), ['n/a'])), $kind->value);
        }
    }

    /** With a seed, so that what fails fails again. */
    public function test_every_measure_is_symmetric_and_bounded_and_the_distance_of_codes_keeps_the_triangle(): void
    {
        mt_srand(9);
        $text = static function (): string {
            $letters = ['a', 'b', 'c', 'ø', ' ', '-', 'é', '1'];
            $made = '';
            for ($length = mt_rand(1, 7); $length > 0; $length--) {
                $made .= $letters[mt_rand(0, 7)];
            }

            return $made;
        };
        for ($round = 0; $round < 3_000; $round++) {
            [$a, $b, $c] = [$text(), $text(), $text()];
            self::assertLessThanOrEqual(
                DamerauLevenshtein::distance($a, $b) + DamerauLevenshtein::distance($b, $c),
                DamerauLevenshtein::distance($a, $c),
                "{$a} {$b} {$c}",
            );
            foreach (LikenessKind::cases() as $kind) {
                [$one, $other] = match ($kind) {
                    LikenessKind::Number => [(string) mt_rand(-99, 99), mt_rand(-99, 99).'.5'],
                    LikenessKind::Date => ['2026-0'.mt_rand(1, 9).'-01', '2025-1'.mt_rand(0, 2).'-28'],
                    default => [$a, $b],
                };
                [$one, $other] = [$this->made($kind, $one), $this->made($kind, $other)];
                if ($one !== null && $other !== null) {
                    $measure = $kind->measure(new FoldedText);
                    $likeness = $measure->likeness($one, $other);
                    self::assertSame($likeness, $measure->likeness($other, $one), "{$kind->value}: {$a} {$b}");
                    self::assertTrue($likeness >= 0 && $likeness <= 1, "{$kind->value}: {$a} {$b}: {$likeness}");
                    self::assertSame(1.0, $measure->likeness($one, $one));
                }
            }
        }
    }

    private function made(LikenessKind $kind, string $value): mixed
    {
        return $kind->measure(new FoldedText(['street' => 'st']))->made($value, new Reading($kind->kind()));
    }
}
