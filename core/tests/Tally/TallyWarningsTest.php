<?php

declare(strict_types=1);

namespace NineTally\Tests\Tally;

use NineTally\Core\Wording\Warning;
use NineTally\Core\Wording\WarningKind;
use PHPUnit\Framework\TestCase;

/** What a tally warns of. */
final class TallyWarningsTest extends TestCase
{
    use Tallied;

    private const HEADER = "basin,berth,holder,fee\n";

    public function test_a_partly_blank_key_is_a_key_and_is_counted(): void
    {
        $summary = $this->tally(self::HEADER."KB,,Ann,10\n", self::HEADER."KB,,Ann,10\n");

        self::assertSame([1, 0, 1], [$summary->source->agreed, $summary->source->unkeyed, $summary->source->partlyBlankKeys]);
    }

    public function test_keys_that_repeat_on_one_side_and_do_not_exist_on_the_other_are_pointed_out(): void
    {
        $summary = $this->tally(self::HEADER."KB,1,Ann,10\nKB,1,Ann,10\n", self::HEADER."LM,1,Bo,20\n");

        self::assertSame(1, $summary->source->keysRepeatedHereOnly);
        self::assertContainsEquals(new Warning(WarningKind::RepeatedHereOnly, ['side' => 'source', 'keys' => 1]), $summary->warnings());
    }

    public function test_a_key_that_repeats_in_every_row_is_a_warning_that_says_so(): void
    {
        $summary = $this->tally(self::HEADER."KB,1,Ann,10\nKB,2,Bo,20\n", self::HEADER."KB,1,Ann,10\nKB,2,Bo,20\n", ['basin']);

        self::assertContainsEquals(new Warning(WarningKind::EverythingRepeated, ['side' => 'source']), $summary->warnings());
    }

    public function test_header_only_is_a_warning_and_no_figure_is_made_up(): void
    {
        $summary = $this->tally(self::HEADER, self::HEADER);

        self::assertContainsEquals(new Warning(WarningKind::NoRows, ['side' => 'source']), $summary->warnings());
        self::assertSame(
            ['no figure', 'no figure', 'no figure'],
            [$summary->rowsArrived()->text(), $summary->values()->agreement()->text(), $summary->values()->ofArrived()->text()],
        );
        self::assertTrue($summary->allAgreed());
    }

    public function test_a_quote_left_open_is_one_refused_record_and_a_warning(): void
    {
        $summary = $this->tally(self::HEADER."KB,1,Ann,10\n", self::HEADER."KB,1,Ann,10\nKB,2,\"Bo,20\nKB,3,Cy,30\n");

        self::assertSame([1, 1, 1], [$summary->target->agreed, $summary->target->refused, $summary->target->quotesLeftOpen]);
        self::assertContainsEquals(new Warning(WarningKind::QuoteLeftOpen, ['side' => 'target']), $summary->warnings());
    }
}
