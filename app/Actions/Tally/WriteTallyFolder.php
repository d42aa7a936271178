<?php

declare(strict_types=1);

namespace App\Actions\Tally;

use App\Adapters\BlobStore;
use App\Models\Delivery;
use App\Models\DeliveryPart;
use App\Models\Tally;
use Illuminate\Support\Str;
use NineTally\Core\Command\TallyFolder;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Tally\Workspace;

/**
 * Writes all that a tally was made of into a folder, from which the command line makes it again: the plan, the parts of both sides and of
 * the references byte for byte, how each part is read, and the parameters.
 *
 * @phpstan-import-type SideDocument from TallyFolder
 */
final readonly class WriteTallyFolder
{
    public function __construct(private BlobStore $blobs) {}

    /** @throws \RuntimeException when the folder is there already, or cannot be written */
    public function __invoke(Tally $tally, string $folder): void
    {
        if (file_exists($folder)) {
            throw new \RuntimeException(sprintf('"%s" is there already. Name a folder that is not there yet.', $folder));
        }
        // Written aside and renamed: the name never stands for half a tally.
        $aside = "{$folder}.".Str::random(8);
        try {
            $this->write($tally, $aside);
            if (! @rename($aside, $folder)) {
                throw $this->unwritable($folder);
            }
        } finally {
            Workspace::at($aside)->remove();
        }
    }

    private function write(Tally $tally, string $folder): void
    {
        if (! @mkdir($folder, 0700)) {
            throw $this->unwritable($folder);
        }
        $run = $tally->run;
        $references = [];
        $number = 0;
        foreach ($run->reference_deliveries as $name => $delivery) {
            $references[$name] = $this->side(Delivery::query()->with('parts')->findOrFail($delivery), 'reference-'.++$number, $folder);
        }
        $this->keep("{$folder}/".TallyFolder::PLAN, $tally->planVersion->document);
        $this->keep("{$folder}/".TallyFolder::FILE, CanonicalJson::of([
            'source' => $this->side($tally->sourceDelivery->load('parts'), 'source', $folder),
            'target' => $this->side($tally->targetDelivery->load('parts'), 'target', $folder),
            ...($references === [] ? [] : ['references' => $references]),
            ...($run->parameters === [] ? [] : ['parameters' => $run->parameters]),
        ]));
    }

    /** @return array{labelColumn: string|null, parts: list<array{file: string, name: string, label: string, format: array<string, mixed>}>} */
    private function side(Delivery $delivery, string $name, string $folder): array
    {
        return ['labelColumn' => $delivery->origin_column, 'parts' => array_values($delivery->parts->map(function (DeliveryPart $part) use ($name, $folder): array {
            $ending = preg_replace('/[^a-z0-9]/', '', strtolower(pathinfo($part->file_name, PATHINFO_EXTENSION)));
            $file = "{$name}-{$part->number}".($ending === '' ? '' : ".{$ending}");
            if (! @copy($this->blobs->path($part->digest), "{$folder}/{$file}")) {
                throw $this->unwritable($folder);
            }

            return ['file' => $file, 'name' => $part->file_name, 'label' => $part->origin, 'format' => $part->format];
        })->all())];
    }

    private function keep(string $path, string $content): void
    {
        if (@file_put_contents($path, $content."\n") !== strlen($content) + 1) {
            throw $this->unwritable(dirname($path));
        }
    }

    private function unwritable(string $folder): \RuntimeException
    {
        return new \RuntimeException(sprintf('The folder "%s" could not be written. Name one whose parent is there and may be written to, on a disk that has room.', $folder));
    }
}
