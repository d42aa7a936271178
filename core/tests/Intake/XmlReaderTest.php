<?php

declare(strict_types=1);

namespace NineTally\Tests\Intake;

use NineTally\Core\Intake\ReaderCatalogue;
use NineTally\Core\Intake\UnreadableFile;
use NineTally\Core\Row\RefusedRecord;
use NineTally\Core\Row\Row;
use NineTally\Tests\TemporaryFiles;
use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;

final class XmlReaderTest extends TestCase
{
    use TemporaryFiles;

    private const REGISTER = "<?xml version=\"1.0\"?>\n<register printed=\"today\">\n <made><by>mjw</by></made>\n <berth ".
        "id=\"14\"><basin>KB</basin><holder><name>Ezekiel &amp; Thornøy</name></holder><fee>1412.60</fee></berth>\n <berth ".
        "id=\"2\"><basin/><tag>a</tag><tag>b \"c\"</tag>\n </berth>\n</register>\n";

    public function test_every_element_at_the_path_is_a_row(): void
    {
        $path = $this->file(self::REGISTER, 'berths.xml');
        $found = (new ReaderCatalogue)->find($path, 'berths.xml');
        self::assertSame('register/berth', $found->format->path);

        $reader = (new ReaderCatalogue)->openAs($path, 'berths.xml', $found->format);
        self::assertSame(['@id', 'basin', 'holder.name', 'fee', 'tag'], $reader->columns()->names);
        self::assertEquals(
            [new Row(4, ['14', 'KB', 'Ezekiel & Thornøy', '1412.60', '']), new Row(6, ['2', '', '', '', '["a","b \"c\""]'])],
            iterator_to_array($reader->records(), false),
        );
    }

    public function test_another_element_can_be_the_record(): void
    {
        $path = $this->file(self::REGISTER, 'berths.xml');
        $format = (new ReaderCatalogue)->find($path, 'berths.xml')->format->with(['path' => 'register/made']);

        self::assertEquals(
            [new Row(3, ['mjw'])],
            iterator_to_array((new ReaderCatalogue)->openAs($path, 'berths.xml', $format)->records(), false),
        );
    }

    public function test_records_in_other_encodings_packed_and_longer_than_a_block_are_read(): void
    {
        $berths = implode(
            "\n",
            array_map(
                static fn(int $nth): string => "<berth><no>{$nth}</no><note>quay wåll ".str_repeat('x', 90).'</note></berth>',
                range(1, 3_000),
            ),
        );
        foreach (
            [
                (string) gzencode("<r>{$berths}</r>"),
                mb_convert_encoding("<?xml version=\"1.0\" encoding=\"UTF-16\"?><r>{$berths}</r>", 'UTF-16', 'UTF-8'),
            ]
            as $position => $bytes
        ) {
            $bytes = $position === 1 && ! str_starts_with($bytes, "\xFE\xFF") ? "\xFE\xFF{$bytes}" : $bytes;
            $reader = (new ReaderCatalogue)->open($this->file($bytes, 'x.xml'), 'x.xml');
            $rows = iterator_to_array($reader->records(), false);

            self::assertCount(3_000, $rows);
            self::assertInstanceOf(Row::class, $rows[2_999]);
            self::assertSame(['3000', 3_000], [$rows[2_999]->cells[0], $rows[2_999]->line]);
            self::assertStringStartsWith('quay wåll', $rows[2_999]->cells[1]);
        }
    }

    public function test_a_record_over_the_row_limit_is_refused_and_the_next_is_read(): void
    {
        $path = $this->file('<r><b><n>1</n></b><b><n>'.str_repeat('x', 300).'</n></b><b><n>3</n></b></r>', 'x.xml');
        $found = iterator_to_array((new ReaderCatalogue(200))->open($path, 'x.xml')->records(), false);

        self::assertInstanceOf(RefusedRecord::class, $found[1]);
        self::assertEquals(new Row(1, ['3']), $found[2]);
    }

    #[DataProvider('notUsable')]
    public function test_says_why_a_document_is_not_read(string $xml, string $code, string $message): void
    {
        try {
            iterator_to_array((new ReaderCatalogue)->open($this->file($xml, 'x.xml'), 'register.xml')->records(), false);
            self::fail('The file was taken.');
        } catch (UnreadableFile $problem) {
            self::assertSame($code, $problem->code());
            self::assertStringContainsString($message, $problem->getMessage());
            self::assertStringContainsString('"register.xml"', $problem->getMessage());
        }
    }

    /** @return iterable<string, array{string, string, string}> */
    public static function notUsable(): iterable
    {
        $bomb = '<!DOCTYPE r [<!ENTITY a "xxxxxxxxxx"><!ENTITY b "&a;&a;&a;&a;">]>';
        yield 'entities that grow' => [
            "<?xml version=\"1.0\"?>\n{$bomb}<r><b><n>&b;</n></b></r>",
            'has-document-type',
            'the line that begins with <!DOCTYPE',
        ];
        yield 'an entity from outside' => [
            '<!DOCTYPE r [<!ENTITY a SYSTEM "file:///etc/hostname">]><r><b><n>&a;</n></b></r>',
            'has-document-type',
            'fetch other files',
        ];
        yield 'a document type in UTF-16' => [
            "\xFF\xFE".mb_convert_encoding('<!DOCTYPE r [<!ENTITY a "x">]><r><b><n>&a;</n></b></r>', 'UTF-16LE', 'UTF-8'),
            'has-document-type',
            'not read',
        ];
        yield 'an element that is closed by another' => ["<r>\n<b><n>1</n></b>\n<b><n>1</b></n>\n</r>", 'unusable-xml', 'line 3'];
        yield 'breaks off' => ["<r>\n<b><n>1</n></b>\n<b><n>1", 'unusable-xml', 'line 3'];
        yield 'no element in it' => ['<r/>', 'unusable-xml', 'no element in it holds others'];
    }
}
