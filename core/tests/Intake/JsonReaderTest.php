<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\RefusalReason;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Core\Wording\Sentences;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class JsonReaderTest extends TestCase
{
    use TemporaryFiles;

    #[DataProvider('values')]
    public function test_a_value_is_the_text_as_it_was_written(string $json, string $cell): void
    {
        self::assertSame([[$cell]], $this->cells("[{\"v\": {$json}}]"));
        self::assertSame([[$cell]], $this->cells("{\"v\": {$json}}\n"));
    }

    /** @return iterable<string, array{string, string}> */
    public static function values(): iterable
    {
        yield 'a number with zeros at its end' => ['1412.60', '1412.60'];
        yield 'a number that a float would bend' => ['0.1000000000000000055', '0.1000000000000000055'];
        yield 'a number beyond every float' => ['1e400', '1e400'];
        yield 'thirty digits' => ['123456789012345678901234567890', '123456789012345678901234567890'];
        yield 'minus zero' => ['-0', '-0'];
        yield 'true' => ['true', 'true'];
        yield 'null is a blank cell' => ['null', ''];
        yield 'an empty string too' => ['""', ''];
        yield 'digits in a string' => ['"007"', '007'];
        yield 'escapes' => ['"Thorn\u00f8y \"II\" \\\\ 1.50"', 'Thornøy "II" \\ 1.50'];
        yield 'a list is its compact JSON' => ['[1.10, "a/b", null, {"x": 2.0}]', '[1.10,"a/b",null,{"x":2.0}]'];
        yield 'an empty object stays an object' => ['{ }', '{}'];
        yield 'an empty list stays a list' => ['[ ]', '[]'];
    }

    public function test_columns_are_the_names_of_all_objects_and_what_is_absent_is_blank(): void
    {
        $reader = (new ReaderCatalogue)->open(
            $this->file("{\"berth\": 14, \"fee\": 1}\n{\"fee\": 2, \"basin\": \"KB\"}\n", 'x.jsonl'),
            'x.jsonl',
        );

        self::assertSame(['berth', 'fee', 'basin'], $reader->columns()->names);
        self::assertEquals([new Row(1, ['14', '1', '']), new Row(2, ['', '2', 'KB'])], iterator_to_array($reader->records(), false));
    }

    public function test_one_bad_line_is_one_refused_record(): void
    {
        $found = iterator_to_array(
            (new ReaderCatalogue)
                ->open($this->file("{\"a\": 1}\n{\"a\": }\n\n[1]\n{\"a\": \"\xF8\"}\n{\"a\": 01}\n{\"a\": 2}", 'x.jsonl'), 'x.jsonl')
                ->records(),
            false,
        );

        self::assertSame(
            ['row 1', 'not-an-object 2', 'not-an-object 4', 'undecodable-bytes 5', 'not-an-object 6', 'row 7'],
            array_map(
                static fn(Row|RefusedRecord $record): string => ($record instanceof Row ? 'row' : $record->reason->value).
                    ' '.
                    $record->line,
                $found,
            ),
        );
    }

    public function test_a_list_is_read_element_by_element_with_their_lines(): void
    {
        $json = "[\n  {\"a\": \"x ] } , \\\" [\"},\n  7,\n  {\"a\": {\"b\": [1, 2]}},\n  \"word\", {\"a\": null}\n]\n";
        $found = iterator_to_array((new ReaderCatalogue)->open($this->file($json, 'x.json'), 'x.json')->records(), false);

        self::assertEquals(new Row(2, ['x ] } , " [', '']), $found[0]);
        self::assertInstanceOf(RefusedRecord::class, $found[1]);
        self::assertSame('7', $found[1]->raw);
        self::assertEquals(new Row(4, ['', '[1,2]']), $found[2]);
        self::assertInstanceOf(RefusedRecord::class, $found[3]);
        self::assertSame('"word"', $found[3]->raw);
        self::assertEquals(new Row(5, ['', '']), $found[4]);
    }

    public function test_a_list_inside_of_objects_is_found_and_another_can_be_named(): void
    {
        $filler = str_repeat('x ] } "', 30_000);
        $json = json_encode(
            [
                'made' => ['by' => 'mjw', 'lists' => [1, 2]],
                'register' => [
                    'note' => $filler,
                    'berths' => [['a' => '1', 'in' => [['x' => 1]]], ['a' => '2']],
                    'basins' => [['b' => 'KB']],
                ],
                'end' => [['c' => 1]],
            ],
            JSON_PRETTY_PRINT | JSON_THROW_ON_ERROR,
        );
        $path = $this->file($json, 'x.json');
        $found = (new ReaderCatalogue)->find($path, 'x.json');

        self::assertSame(['register.berths', 'register.basins', 'end'], $found->format->paths);
        self::assertEquals($found->format, \NineTally\Core\Intake\PartFormat::fromArray($found->format->toArray()));
        $read = static fn(string $where): array => array_map(
            static fn(Row|RefusedRecord $record): array => $record instanceof Row
                ? $record->cells
                : [(new Sentences)->refusal($record->reason, $record->facts)],
            iterator_to_array((new ReaderCatalogue)->openAs($path, 'x.json', $found->format->with(['path' => $where]))->records(), false),
        );
        self::assertSame([['1', '[{"x":1}]'], ['2', '']], $read('register.berths'));
        self::assertSame([['KB']], $read('register.basins'));
        self::assertSame([['1']], $read('end'));
        $this->expectException(UnreadableFile::class);
        $this->expectExceptionMessage('nothing in it is a list at "berths"');
        $read('berths');
    }

    public function test_a_list_longer_than_a_block_is_read_to_its_end(): void
    {
        $objects = array_map(
            static fn(int $row): string => json_encode(['berth' => $row, 'note' => str_repeat('quay wall ', 20)], JSON_THROW_ON_ERROR),
            range(1, 2_000),
        );
        $rows = iterator_to_array(
            (new ReaderCatalogue)->open($this->file('['.implode(",\n", $objects).']', 'x.json'), 'x.json')->records(),
            false,
        );

        self::assertCount(2_000, $rows);
        self::assertInstanceOf(Row::class, $rows[1_999]);
        self::assertSame(['2000', 2_000], [$rows[1_999]->cells[0], $rows[1_999]->line]);
    }

    public function test_a_record_over_the_row_limit_is_refused(): void
    {
        $long = '{"a": "'.str_repeat('x', 500).'"}';
        foreach (["{\"a\": 1}\n{$long}\n{\"a\": 2}\n", "[{\"a\": 1}, {$long}, {\"a\": 2}]"] as $json) {
            $found = iterator_to_array((new ReaderCatalogue(200))->open($this->file($json, 'x.json'), 'x.json')->records(), false);

            self::assertCount(3, $found);
            self::assertInstanceOf(RefusedRecord::class, $found[1]);
            self::assertSame(RefusalReason::OverRowLimit, $found[1]->reason);
        }
    }

    #[DataProvider('notUsable')]
    public function test_says_why_a_document_is_no_register(string $json, string $code): void
    {
        try {
            iterator_to_array((new ReaderCatalogue)->open($this->file($json, 'x.json'), 'register.json')->records(), false);
            self::fail('The file was taken.');
        } catch (UnreadableFile $problem) {
            self::assertSame($code, $problem->code());
            self::assertStringContainsString('"register.json"', $problem->getMessage());
        }
    }

    /** @return iterable<string, array{string, string}> */
    public static function notUsable(): iterable
    {
        yield 'breaks off in an object' => ['[{"a": 1}, {"a":', 'broken-off'];
        yield 'breaks off in a string' => ['[{"a": "x', 'broken-off'];
        yield 'breaks off between objects' => ['[{"a": 1},', 'broken-off'];
        yield 'breaks off behind the list' => ["{\"berths\": [{\"a\": 1}],\n\"end\": [", 'broken-off'];
        yield 'no objects' => ['[1, 2]', 'not-a-list-of-objects'];
        yield 'an empty list' => ['[]', 'not-a-list-of-objects'];
        yield 'one object over many lines' => ["{\n\"a\": 1\n}\n", 'not-a-list-of-objects'];
    }

    /** @return list<list<string>> */
    private function cells(string $json): array
    {
        $rows = [];
        foreach ((new ReaderCatalogue)->open($this->file($json, 'x.json'), 'x.json')->records() as $record) {
            self::assertInstanceOf(Row::class, $record);
            $rows[] = $record->cells;
        }

        return $rows;
    }
}
