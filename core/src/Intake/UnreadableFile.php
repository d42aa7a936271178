<?php

declare(strict_types=1);

namespace NineTally\Core\Intake;

use NineTally\Core\NineTallyException;
use NineTally\Core\Row\Columns;

/** A file that cannot be taken as a delivery, with the reason and the remedy. */
final class UnreadableFile extends \RuntimeException implements NineTallyException
{
    private function __construct(public readonly string $fileName, private readonly string $reason, string $message)
    {
        parent::__construct($message);
    }

    public static function cannotBeOpened(string $file): self
    {
        return new self($file, 'cannot-be-opened', sprintf('"%s" cannot be opened. Check that it exists and that you may read it.', $file));
    }

    public static function cannotBeRead(string $file): self
    {
        return new self(
            $file,
            'cannot-be-read',
            sprintf('"%s" could be opened, but not read to its end. Check the disk, or the connection to it, and try again.', $file),
        );
    }

    public static function isFolder(string $file): self
    {
        return new self($file, 'folder', sprintf('"%s" is a folder. Give the file in it that holds the rows.', $file));
    }

    public static function isEmpty(string $file): self
    {
        return new self(
            $file,
            'empty-file',
            sprintf('"%s" is empty. A delivery needs at least a header with the column names; export it again.', $file),
        );
    }

    public static function isOfAnotherKind(string $file, string $kind): self
    {
        return new self(
            $file,
            'not-delimited-text',
            sprintf('"%s" is %s, which is not read. Export the table as CSV in UTF-8 and deliver that file.', $file, $kind),
        );
    }

    public static function isNoWorkbook(string $file, string $why): self
    {
        return new self(
            $file,
            'unusable-workbook',
            sprintf('The workbook "%s" cannot be read: %s. Open and save it again, or export the table as CSV.', $file, $why),
        );
    }

    public static function hasPassword(string $file): self
    {
        return new self($file, 'has-password', sprintf('"%s" is locked with a password. Save it without one and deliver it again.', $file));
    }

    public static function isTooLargeUnpacked(string $file, string $why): self
    {
        return new self(
            $file,
            'too-large-unpacked',
            sprintf('"%s" is not unpacked: %s. Deliver the table itself, packed with gzip or not at all.', $file, $why),
        );
    }

    public static function holdsSeveralFiles(string $file, int $files): self
    {
        return new self(
            $file,
            'several-files',
            $files === 0
                ? sprintf('"%s" is a zip archive with no file in it. Pack it again.', $file)
                : sprintf(
                    '"%s" is a zip archive with %s files. Unpack it and deliver the files together: they become the parts of one delivery.',
                    $file,
                    number_format($files),
                ),
        );
    }

    /** @param int $count how many there are, as far as was looked */
    public static function hasTooManyColumns(string $file, int $count): self
    {
        return new self(
            $file,
            'too-many-columns',
            sprintf(
                '"%s" has %s columns or more, and at most %s are read. It was most likely read the wrong way: check the delimiter; or '.
                    'leave out columns before you export it.',
                $file,
                number_format($count),
                number_format(Columns::MOST),
            ),
        );
    }

    public static function breaksOff(string $file): self
    {
        return new self(
            $file,
            'broken-off',
            sprintf('"%s" breaks off in the middle or is damaged: it cannot be unpacked to its end. Pack it or copy it again.', $file),
        );
    }

    /** Of a file that is not packed. */
    public static function endsTooEarly(string $file): self
    {
        return new self(
            $file,
            'broken-off',
            sprintf('"%s" ends in the middle of what it holds. Export it or copy it again.', $file),
        );
    }

    public static function hasQuoteLeftOpen(string $file, int $line): self
    {
        return new self(
            $file,
            'quote-left-open',
            sprintf(
                'In "%s" the quote opened on line %s is never closed, so the end of the rows cannot be told. Close it, or double a quote '.
                    'that belongs to the value, and deliver the file again.',
                $file,
                number_format($line),
            ),
        );
    }

    public static function isNoListOfObjects(string $file, string $why): self
    {
        return new self(
            $file,
            'not-a-list-of-objects',
            sprintf('"%s" is JSON, but %s. A register in JSON is a list of objects, or one object a line.', $file, $why),
        );
    }

    public static function isNoXmlOfRecords(string $file, string $why): self
    {
        return new self(
            $file,
            'unusable-xml',
            sprintf(
                '"%s" is XML, but cannot be read as records: %s. Export it again, or name the element that is one record.',
                $file,
                $why,
            ),
        );
    }

    public static function queryFails(string $source, string $why): self
    {
        return new self(
            $source,
            'query-fails',
            sprintf('The query on "%s" gives nothing to deliver: %s. Correct it and ask again.', $source, $why),
        );
    }

    public static function hasDocumentType(string $file): self
    {
        return new self(
            $file,
            'has-document-type',
            sprintf(
                '"%s" declares a document type, which could make it grow or fetch other files, so it is not read. Export it without the '.
                    'line that begins with <!DOCTYPE.',
                $file,
            ),
        );
    }

    public static function hasNoHeader(string $file, string $why): self
    {
        return new self(
            $file,
            'no-header',
            sprintf('The header of "%s" cannot be read: %s. The first line must hold the column names.', $file, $why),
        );
    }

    public function code(): string
    {
        return $this->reason;
    }
}
