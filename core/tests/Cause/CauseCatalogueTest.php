<?php

declare(strict_types=1);

namespace NineTally\Tests\Cause;

use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Comparison\CellPair;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class CauseCatalogueTest extends TestCase
{
    #[DataProvider('differences')]
    public function test_names_why_two_cells_differ(string $source, string $target, string $cause): void
    {
        self::assertSame($cause, (new CauseCatalogue)->explain(new CellPair($source, $target))->id());
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function differences(): iterable
    {
        yield 'spaces at the ends' => ['Slow Heron', ' Slow Heron  ', 'spacing'];
        yield 'a run of spaces' => ['Slow Heron', 'Slow  Heron', 'spacing'];
        yield 'a no-break space' => ['Slow Heron', "Slow\u{00A0}Heron", 'spacing'];
        yield 'a tab' => ['Slow Heron', "Slow\tHeron", 'spacing'];
        yield 'a space that is gone altogether is another value' => ['AB 123', 'AB123', 'none'];
        yield 'a line end is no spacing' => ["Ladder\nloose", 'Ladder loose', 'none'];

        yield 'capitals' => ['Ottoline', 'OTTOLINE', 'case'];
        yield 'capitals beyond ASCII' => ['Søren Dàvies', 'SØREN DÀVIES', 'case'];
        yield 'sharp s folds to two letters' => ['Straße', 'STRASSE', 'case'];
        yield 'an accent that is gone is another value' => ['Bríd', 'Brid', 'none'];

        yield 'zeros at the end' => ['1412.60', '1412.6', 'number-form'];
        yield 'grouped thousands' => ['1,234.50', '1234.5', 'number-form'];
        yield 'an exponent' => ['1e3', '1000', 'number-form'];
        yield 'a plus sign' => ['+7', '7', 'number-form'];
        yield 'minus zero' => ['-0', '0.00', 'number-form'];
        yield 'a real minus sign' => ["\u{2212}5", '-5', 'number-form'];
        yield 'no digit before the point' => ['.5', '0.5', 'number-form'];
        yield 'thirty digits' => ['123456789012345678901234567890.10', '123456789012345678901234567890.1', 'number-form'];
        yield 'thirty digits, the last one another' => ['123456789012345678901234567890', '123456789012345678901234567891', 'none'];
        yield 'a huge exponent' => ['1e400', '10e399', 'number-form'];
        yield 'another number' => ['1412.60', '1413', 'none'];
        yield 'the other sign' => ['5', '-5', 'none'];
        yield 'leading zeros are how identifiers look' => ['007', '7', 'none'];
        yield 'a decimal comma is not guessed' => ['1234,5', '1234.5', 'none'];
        yield 'groups that are no thousands' => ['1,23', '123', 'none'];
        yield 'a point alone is no number' => ['.', '0', 'none'];

        yield 'blank in the target' => ['Y', '', 'blanked'];
        yield 'blank in the source' => ['', '1965', 'filled'];
        yield 'spaces alone are no value' => ['', '   ', 'spacing'];
        yield 'and none in the other direction' => ["\u{00A0}", '', 'spacing'];
        yield 'an invisible character alone is no value either' => ['', "\u{200B}", 'none'];
        yield 'a token is a value as long as nobody declares it' => ['', 'N/A', 'filled'];

        yield 'two forms together, in the order of the catalogue' => [' Abc', 'abc', 'spacing+case'];
        yield 'three forms together' => [' 1E3 ', '1000', 'spacing+number-form'];
        yield 'the fewest causes, not the first that fit' => ['1E3', '1e3', 'case'];
        yield 'nothing is guessed' => ['Shares post', 'Reserved', 'none'];
    }

    public function test_a_combination_reads_as_one_sentence(): void
    {
        self::assertSame('spaces differ and capitals differ', CauseId::sentenceFor('spacing+case'));
    }
}
