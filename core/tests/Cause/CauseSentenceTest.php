<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Cause\CauseId;
use NineTally\Core\Cause\CauseSentence;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What a reader of the report is told of a cause: figures with their units, one and many, earlier and later. */
final class CauseSentenceTest extends TestCase
{
    /** @param array<string, string|int> $facts */
    #[DataProvider('sentences')]
    public function test_says_what_happened(string $expected, string $ids, array $facts): void
    {
        self::assertSame($expected, (new CauseSentence($facts))->of(array_map(CauseId::from(...), explode('+', $ids))));
    }

    /** @return iterable<array{string, string, array<string, string|int>}> */
    public static function sentences(): iterable
    {
        yield ['the source is not date', 'unreadable', ['side' => 'source', 'kind' => 'date']];
        yield ['rounded or cut to a whole number', 'rounding', ['places' => 0]];
        yield ['rounded or cut to 1 decimal', 'rounding', ['places' => 1]];
        yield ['100 times too small', 'scale', ['factor' => '10^-2']];
        yield ['10^18 times too large', 'scale', ['factor' => '10^18']];
        yield ['cut at 1 character', 'truncated', ['characters' => 1]];
        yield ['cut at 1,024 bytes', 'truncated', ['bytes' => 1024]];
        yield ['one day earlier', 'date-shift', ['days' => -1]];
        yield ['1,462 days later', 'date-shift', ['days' => 1462]];
        yield ['90 minutes later', 'date-shift', ['seconds' => 5400]];
        yield [
            'one hour later, always while clocks are forward in Europe/London',
            'date-shift',
            ['seconds' => 0, 'clock_change' => 3600, 'zone' => 'Europe/London'],
        ];
        yield [
            'one hour earlier, always while clocks are not forward in Europe/London',
            'date-shift',
            ['seconds' => -3600, 'clock_change' => 3600, 'zone' => 'Europe/London'],
        ];
        yield ['moved from fee to deposit', 'moved', ['from' => 'fee', 'to' => 'deposit']];
        yield ['letters lost to ? in the target', 'encoding', ['lost_to' => '?', 'side' => 'target']];
        yield ['UTF-8 read as Windows-1252 in the target', 'encoding', ['read_as' => 'Windows-1252', 'side' => 'target']];
        yield [
            '2 hours later, and 3 hours later while clocks are forward in Europe/London',
            'date-shift',
            ['seconds' => 7200, 'clock_change' => 3600, 'zone' => 'Europe/London'],
        ];
        yield ['letters added and exchanged', 'near-text', ['edit' => 'added+exchanged']];
        yield ['1.50 more', 'offset', ['constant' => '1.50']];
        yield ['2 less', 'offset', ['constant' => '-2']];
        yield [
            'the time of the source never was: the clock goes forward over it',
            'unreadable',
            ['side' => 'source', 'kind' => 'a date with a time', 'clock' => 'skipped'],
        ];
        yield ['an instant against a time of the target without a zone', 'unreadable', ['side' => 'target', 'clock' => 'no-zone']];
        yield ['same date, written differently, where the clock shows the time twice', 'date-form', ['clock' => 'twice']];
        yield ['capitals differ, held against the entry of the crosswalk', 'case', ['against' => 'entry']];
        yield ['within the declared tolerance, at most 0.01 apart, -0.37 in all', 'tolerance', ['largest' => '0.01', 'net' => '-0.37']];
        yield ['cut at 20 characters, and capitals differ', 'truncated', ['characters' => 20, 'forms' => 'case']];
        yield [CauseId::Rounding->meaning(), 'rounding', []];
        yield [CauseId::Spacing->meaning().' and '.CauseId::LetterCase->meaning(), 'spacing+case', []];
    }

    public function test_every_cause_says_something_of_its_own_also_without_figures(): void
    {
        $sentences = array_map(static fn(CauseId $id): string => (new CauseSentence([]))->of([$id]), CauseId::cases());

        self::assertNotContains('', $sentences);
        self::assertSame($sentences, array_unique($sentences));
    }
}
