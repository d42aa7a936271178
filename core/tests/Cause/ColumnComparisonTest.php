<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Comparison\CellClass;
use NineTally\Core\Value\Kind;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class ColumnComparisonTest extends TestCase
{
    use ComparesCells;

    #[DataProvider('differences')]
    public function test_names_why_two_cells_differ(string $source, string $target, string $cause): void
    {
        self::assertSame($cause, $this->cause($source, $target)->id);
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function differences(): iterable
    {
        yield 'spaces at the ends' => ['Slow Heron', ' Slow Heron  ', 'spacing'];
        yield 'a run of spaces' => ['Slow Heron', 'Slow  Heron', 'spacing'];
        yield 'a no-break space' => ['Slow Heron', "Slow\u{00A0}Heron", 'spacing'];
        yield 'a tab' => ['Slow Heron', "Slow\tHeron", 'spacing'];
        yield 'a space that is gone altogether is no spacing' => ['AB 12', 'AB12', 'near-text'];
        yield 'a line end is no spacing' => ["Ladder\nloose", 'Ladder loose', 'near-text'];
        yield 'a space that NFKC makes of a no-break space' => ["A\u{00A0}b", 'a B', 'spacing+case'];

        yield 'a zero-width space' => ["Heron\u{200B}", 'Heron', 'invisible'];
        yield 'a soft hyphen' => ["Kingfi\u{00AD}sher", 'Kingfisher', 'invisible'];
        yield 'a byte-order mark' => ["\u{FEFF}KB", 'KB', 'invisible'];
        yield 'a control character' => ["KB\u{0007}", 'KB', 'invisible'];
        yield 'what is invisible parts a run of spaces' => ["A \u{200B} b", 'A b', 'spacing+invisible'];
        yield 'CR LF' => ["Ladder\r\nloose", "Ladder\nloose", 'line-ends'];
        yield 'a line separator' => ["Ladder\u{2028}loose", "Ladder\nloose", 'line-ends'];

        yield 'capitals' => ['Ottoline', 'OTTOLINE', 'case'];
        yield 'capitals beyond ASCII' => ['Søren Dàvies', 'SØREN DÀVIES', 'case'];
        yield 'a capital sharp s' => ['Straße', 'STRAẞE', 'case'];

        yield 'an accent is gone' => ['Bríd', 'Brid', 'accents'];
        yield 'a stroke is a mark' => ['Zabłocki', 'Zablocki', 'accents'];
        yield 'sharp s' => ['Straße', 'Strasse', 'accents'];
        yield 'sharp s in capitals' => ['Straße', 'STRASSE', 'case+accents'];
        yield 'an accent of its own, and none' => ["Jo\u{0308}rg", 'Jorg', 'accents'];
        yield 'two accents' => ['Maëlle', 'Maélle', 'accents'];
        yield 'a Greek accent' => ['Πύλη', 'Πυλη', 'accents'];
        yield 'elsewhere a mark makes another letter' => ['Зайцев', 'Заицев', 'near-text'];
        yield 'two letters for one are no mark' => ['Ægir', 'AEgir', 'none'];

        yield 'composed and not' => ['Jörg', "Jo\u{0308}rg", 'unicode'];
        yield 'wide letters' => ["\u{FF2B}\u{FF22}", 'KB', 'unicode'];
        yield 'a ligature' => ["\u{FB01}sher", 'fisher', 'unicode'];
        yield 'a quote of another kind' => ["Bríd O'Marrow", "Bríd O\u{2019}Marrow", 'punctuation'];
        yield 'a dash for a hyphen' => ['Ashcombe-Lane', "Ashcombe\u{2013}Lane", 'punctuation'];
        yield 'a hyphen that is gone is no punctuation' => ['Ashcombe-Lane', 'AshcombeLane', 'near-text'];
        yield 'leading zeros' => ['007', '7', 'leading-zeros'];
        yield 'leading zeros before a letter' => ['014A', '14A', 'leading-zeros'];
        yield 'zeros inside are not leading' => ['A007', 'A7', 'none'];
        yield 'a zero alone stays' => ['0', '00', 'leading-zeros'];
        yield 'leading zeros and a decimal' => ['007', '7.0', 'leading-zeros+number-form'];

        yield 'zeros at the end' => ['1412.60', '1412.6', 'number-form'];
        yield 'a comma that groups is not guessed' => ['12,345,678', '12345678', 'near-text'];
        yield 'an exponent' => ['1e3', '1000', 'number-form'];
        yield 'a plus sign' => ['+7', '7', 'number-form'];
        yield 'minus zero' => ['-0', '0.00', 'number-form'];
        yield 'a real minus sign' => ["\u{2212}5", '-5.0', 'number-form'];
        yield 'no digit before the point' => ['.5', '0.5', 'number-form'];
        yield 'thirty digits' => ['123456789012345678901234567890.10', '123456789012345678901234567890.1', 'number-form'];
        yield 'thirty digits, the last one another' => ['123456789012345678901234567890', '123456789012345678901234567891', 'none'];
        yield 'a huge exponent' => ['1e400', '10e399', 'number-form'];
        yield 'another number' => ['1412.60', '1418.60', 'none'];
        yield 'a decimal comma is not guessed' => ['1234,5', '1234.5', 'near-text'];
        yield 'groups that are no thousands' => ['1,23', '123', 'none'];
        yield 'a point alone is no number' => ['.', '0', 'none'];

        yield 'blank in the target' => ['Y', '', 'blanked'];
        yield 'blank in the source' => ['', '1965', 'filled'];
        yield 'spaces alone are no value' => ['', '   ', 'spacing'];
        yield 'and none in the other direction' => ["\u{00A0}", '', 'spacing'];
        yield 'an invisible character alone is no value either' => ['', "\u{200B}", 'invisible'];
        yield 'a line end can be seen' => ['', "\n", 'filled'];
        yield 'a token is a value as long as nobody declares it' => ['', 'N/A', 'filled'];

        yield 'two forms together, in the order of the catalogue' => [' Abc', 'abc', 'spacing+case'];
        yield 'a number in spaces' => [' 1E3 ', '1000', 'spacing+number-form'];

        yield 'day first is not guessed' => ['2027-10-09', '09/10/2027', 'none'];
        yield 'midnight adds nothing to a day' => ['2027-01-14T00:00:00', '2027-01-14', 'date-form'];
        yield 'eight digits may be any number' => ['20270114', '2027/01/14', 'near-text'];
        yield 'one instant under two offsets' => ['2027-01-14T12:00:00Z', '2027-01-14T13:00:00+01:00', 'date-form'];
        yield '29 February of a common year is no day' => ['2027-02-29', '2027-02-29 00:00', 'none'];
        yield '29 February' => ['2028-02-29', '2028-02-29 00:00', 'date-form'];
        yield '24:00 is the end of the day' => ['2027-01-14 24:00', '2027-01-15', 'date-form'];
        yield 'two-digit years are not guessed' => ['2027-01-14', '14/01/27', 'none'];
        yield 'yes and no' => ['Y', 'true', 'yes-no-form'];
        yield 'yes is not no' => ['Y', 'false', 'none'];

        yield 'rounded' => ['243.56', '244', 'rounding'];
        yield 'cut' => ['243.56', '243', 'rounding'];
        yield 'rounded to one decimal, by the source' => ['12.4', '12.35', 'rounding'];
        yield 'one unit away is not rounded' => ['243.56', '245', 'none'];
        yield 'negated' => ['5', '-5.00', 'sign'];
        yield 'pounds became pence' => ['14.13', '1413', 'scale'];
        yield 'zero would fit any factor' => ['0', '100', 'none'];
        yield 'day and month swapped' => ['2027-03-04', '2027-04-03', 'day-month'];
        yield 'UTF-8 read as another encoding' => ['Ezekiel Thornøy', 'Ezekiel ThornÃ¸y', 'encoding'];
        yield 'broken in the source, mended in the target' => ['ThornÃ¸y', 'Thornøy', 'encoding'];
        yield 'letters lost' => ['Maëlle Zabłocki', 'Ma?lle Zab?ocki', 'encoding'];
        yield 'letters lost to the replacement character' => ['Zabłocki', "Zab\u{FFFD}ocki", 'encoding'];
        yield 'a question is no lost letter' => ['Thornoy', 'Thorno?', 'near-text'];
        yield 'neighbours changed places' => ['Kingfisher II', 'Kingfihser II', 'near-text'];
        yield 'three edits are too many' => ['Periwinkle', 'Parivinkel', 'none'];
        yield 'more than a quarter of a short text' => ['Heron', 'Haran', 'none'];
        yield 'fewer than four characters' => ['KB1', 'KB2', 'none'];
        yield 'two days near each other are two days' => ['2027-01-14', '2027-01-19', 'none'];
        yield 'the fewest causes, not the first that fit' => ['1E3', '1e3', 'case'];
        yield 'nothing is guessed' => ['Shares post', 'Reserved', 'none'];
    }

    public function test_a_cause_says_what_happened_with_its_figures(): void
    {
        self::assertSame([
            'spaces differ and capitals differ', '10 times too large', '1,000 times too small', 'rounded or cut to 1 decimal',
            'letters swapped', 'letters added, and capitals differ', 'UTF-8 read as Windows-1252 in the target',
            'letters lost to ? in the target', 'the target is not a number',
        ], [
            $this->cause(' Abc', 'abc')->sentence(),
            $this->cause('12.3', '123')->sentence(),
            $this->cause('1000', '1')->sentence(),
            $this->cause('12.35', '12.4')->sentence(),
            $this->cause('Kingfisher II', 'Kingfihser II')->sentence(),
            $this->cause('Periwinkle', 'PERRIWINKLE')->sentence(),
            $this->cause('Thornøy', 'ThornÃ¸y')->sentence(),
            $this->cause('Thornøy', 'Thorn?y')->sentence(),
            $this->cause('12', 'twelve', Kind::Number)->sentence(),
        ]);
    }

    public function test_a_new_pair_of_a_kind_forgives_its_own_form_and_nothing_else(): void
    {
        self::assertSame(CellClass::Forgiven, $this->column(Kind::Number)->classify('007', '7.0')->class);
        // Of numbers, spaces at the ends are part of the form.
        self::assertSame(
            [CellClass::Forgiven, 'number-form'],
            [$this->column(Kind::Number)->classify(' 7', '7.0')->class, $this->column(Kind::Number)->classify(' 7', '007')->cause?->id],
        );
        self::assertSame(CellClass::Changed, $this->column(Kind::Number)->classify("7\u{200B}", '7')->class);
        self::assertSame(CellClass::Forgiven, $this->column(Kind::Date)->classify('2027-10-09', '2027-10-09T00:00')->class);
        self::assertSame(CellClass::Changed, $this->column(Kind::Text)->classify('7', '7.0')->class);
    }
}
