<?php

declare(strict_types=1);

namespace NineTally\Tests\Preparation;

use NineTally\Core\Preparation\ReferenceTable;
use NineTally\Core\Preparation\UnusableStep;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

/** What cleaning and reading do to single values, hostile ones included. */
final class ValuesTest extends TestCase
{
    use Prepared;

    /** @param array<string, mixed> $action */
    #[DataProvider('actions')]
    public function test_an_action_cleans(array $action, string $before, string $after): void
    {
        self::assertSame(
            $after,
            $this->prepared(
                $this->preparationOf(['kind' => 'tidy-text', 'columns' => ['v'], 'actions' => [$action]]),
                ['v'],
                [[$before]],
            )[1][0],
        );
        self::assertSame($before === $after ? 0 : 1, $this->figures[1]->altered);
    }

    /** @return iterable<string, array{array<string, mixed>, string, string}> */
    public static function actions(): iterable
    {
        yield 'trim takes no-break spaces too' => [['action' => 'trim'], "\u{A0} KB\u{2003}\t", 'KB'];
        yield 'trim leaves line ends' => [['action' => 'trim'], "\nKB", "\nKB"];
        yield 'squeeze' => [['action' => 'squeeze'], "a \u{A0}\t b", 'a b'];
        yield 'remove-invisible leaves line ends' => [['action' => 'remove-invisible'], "a\u{200B}\u{AD}\u{FEFF}\nb", "a\nb"];
        yield 'upper beyond ASCII' => [['action' => 'upper'], 'ørje straße', 'ØRJE STRASSE'];
        yield 'lower' => [['action' => 'lower'], 'ØRJE', 'ørje'];
        yield 'compose' => [['action' => 'compose'], "e\u{301}", "\u{E9}"];
        yield 'compatible' => [['action' => 'compatible'], "\u{FB01}\u{FF11}", 'fi1'];
        yield 'replace nothing is nothing' => [['action' => 'replace', 'find' => '', 'with' => 'x'], 'KB', 'KB'];
        yield 'replace-pattern with a tilde in it' => [
            ['action' => 'replace-pattern', 'find' => '~(\d+)~', 'with' => '[$1]'],
            'a~12~',
            'a[12]',
        ];
        yield 'pad-zeros counts no sign and cuts nothing' => [['action' => 'pad-zeros', 'length' => 3], '12345', '12345'];
        yield 'pad-zeros leaves blanks' => [['action' => 'pad-zeros', 'length' => 3], '', ''];
        yield 'strip-zeros leaves one' => [['action' => 'strip-zeros'], '000', '0'];
    }

    /** @param array<string, mixed> $reading */
    #[DataProvider('readings')]
    public function test_a_reading_writes_one_form(
        string $kind,
        array $reading,
        string $before,
        string $after,
        bool $isReadable = true,
    ): void {
        self::assertSame(
            $after,
            $this->prepared(
                $this->preparationOf(['kind' => $kind, 'columns' => ['v'], ...$reading === [] ? [] : ['reading' => $reading]]),
                ['v'],
                [[$before]],
            )[1][0],
        );
        self::assertSame($isReadable ? [] : ['unreadable' => 1], $this->figures[1]->notes);
    }

    /** @return iterable<string, array{0: string, 1: array<string, mixed>, 2: string, 3: string, 4?: bool}> */
    public static function readings(): iterable
    {
        yield 'groups of digits' => ['read-number', ['groupMark' => ','], '1,234.500', '1234.5'];
        yield 'thirty digits' => ['read-number', [], '100000000000000000000000000000.010', '100000000000000000000000000000.01'];
        yield 'an exponent' => ['read-number', [], '1.5e3', '1500'];
        yield 'minus zero' => ['read-number', [], '-0.0', '0'];
        yield 'an exponent without measure' => ['read-number', [], '1e999999999', '1e999999999', false];
        yield 'a comma where a point was declared' => ['read-number', ['decimalMark' => '.'], '1,5', '1,5', false];
        yield 'a date and time' => ['read-date', [], '2027-03-31 14:05', '2027-03-31T14:05:00'];
        yield 'with its offset' => ['read-date', [], '2027-03-31T14:05:00+02:00', '2027-03-31T14:05:00+02:00'];
        yield 'two digits of a year, said what they mean' => [
            'read-date',
            ['dateForms' => ['dd.MM.yy'], 'twoDigitYearsFrom' => 1950],
            '29.02.52',
            '1952-02-29',
        ];
        yield 'a day that never was' => ['read-date', [], '2027-02-29', '2027-02-29', false];
        yield 'yes in its words' => ['read-yes-no', ['yes' => ['JA'], 'no' => ['NEIN']], 'ja', 'yes'];
        yield 'yes in words that were not declared' => ['read-yes-no', ['yes' => ['JA'], 'no' => ['NEIN']], 'Y', 'Y', false];
    }

    public function test_unreadable_values_are_listed_each_with_its_count(): void
    {
        $this->prepared($this->preparationOf(['kind' => 'read-number', 'columns' => ['v']]), ['v'], [['n/a'], ['1'], ['n/a'], ['-'], ['']]);

        self::assertSame(['unreadable' => ['n/a' => 2, '-' => 1]], $this->figures[1]->values);
    }

    public function test_what_a_note_is_about_is_listed_within_bounds(): void
    {
        $this->prepared(
            $this->preparationOf(['kind' => 'read-number', 'columns' => ['v']]),
            ['v'],
            array_map(static fn(int $row): array => ["no number {$row}".str_repeat('x', 1_000)], range(1, 1_500)),
        );

        self::assertSame(1_500, $this->figures[1]->notes['unreadable']);
        self::assertCount(1_000, $this->figures[1]->values['unreadable']);
        self::assertLessThan(210, max(0, ...array_map(strlen(...), array_keys($this->figures[1]->values['unreadable']))));
    }

    public function test_a_table_too_large_to_look_up_from_is_refused(): void
    {
        $rows = static function (): \Generator {
            for ($row = 0; $row <= ReferenceTable::MOST_ROWS; $row++) {
                yield ['x'];
            }
        };

        $this->expectException(UnusableStep::class);
        $this->expectExceptionMessage('has more than 500,000 rows');
        ReferenceTable::of('Basins', ['code'], $rows());
    }

    public function test_a_preparation_says_what_it_needs_from_outside_and_steps_that_are_off_need_nothing(): void
    {
        $lookUp = [
            'kind' => 'look-up',
            'reference' => 'Basins',
            'on' => [['column' => 'v', 'reference' => 'code']],
            'take' => [['reference' => 'name', 'into' => 'n']],
        ];
        $keep = [
            'kind' => 'keep-rows',
            'condition' => [
                'any' => [['column' => 'v', 'test' => 'after', 'parameter' => 'cut-off'], ['column' => 'v', 'test' => 'is-blank']],
            ],
        ];
        $preparation = $this->preparationOf($lookUp, $keep, [...$lookUp, 'reference' => 'Bands', 'off' => true]);

        self::assertSame([['Basins'], ['cut-off']], [$preparation->references(), $preparation->parameters()]);
        self::assertSame($this->preparationOf($lookUp, $keep)->digest(), $preparation->digest(), 'What is off, and ids, change nothing.');
        self::assertNotSame($this->preparationOf($keep, $lookUp)->digest(), $preparation->digest());
    }
}
