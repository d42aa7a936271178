<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Queries\Review\Record;
use App\Queries\Review\RecordField;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;
use NineTally\Core\Cause\CauseCatalogue;
use NineTally\Core\Cause\CauseId;
use NineTally\Core\Wording\Sentences;

/** @property Record $resource */
final class RecordResource extends JsonResource
{
    public static $wrap = null;

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $row = $this->resource->row->finding;
        $sentences = new Sentences;

        return [
            ...RowFindingResource::facts($this->resource->row),
            'sourceFile' => $this->resource->files['source'],
            'targetFile' => $this->resource->files['target'],
            'remark' => $sentences->remark($row),
            'refusal' =>
                $row->refused === null
                    ? null
                    : ['sentence' => $sentences->refusal($row->refused->reason, $row->refused->facts), 'raw' => $row->refused->raw],
            'fields' => array_map($this->field(...), $this->resource->fields),
        ];
    }

    /** @return array<string, mixed> */
    private function field(RecordField $field): array
    {
        $cell = $field->finding;

        return [
            'role' => $field->role,
            'source' => $field->source,
            'target' => $field->target,
            'sourceValue' => $field->sourceValue,
            'targetValue' => $field->targetValue,
            'letPass' => $field->letPass === null ? null : CauseId::sentenceFor($field->letPass->id, $field->letPass->facts),
            'finding' =>
                $cell === null
                    ? null
                    : [
                        'sequence' => $cell->sequence,
                        'pattern' => $cell->finding->place->number,
                        'class' => $cell->finding->class->value,
                        'cause' => $cell->finding->cause,
                        'difference' => $cell->finding->difference?->value->written(),
                        'relativeDifference' => $cell->finding->difference?->relative,
                        'sentence' => $this->sentence(
                            $cell->finding->cause,
                            $cell->finding->facts,
                            (string) $field->sourceValue,
                            (string) $field->targetValue,
                        ),
                        ...$cell->standing->toArray(),
                    ],
        ];
    }

    /**
     * The words of the cause; of near texts also which letters became which, as they were delivered.
     *
     * @param  array<string, string|int>  $facts
     */
    private function sentence(string $cause, array $facts, string $source, string $target): string
    {
        $sentence = CauseId::sentenceFor($cause, $facts);
        if ($cause !== CauseId::NearText->value) {
            return $sentence;
        }
        $letters = array_map(static fn(array $edit): string => match (true) {
            $edit[0] === '' => sprintf('"%s" added', $edit[1]),
            $edit[1] === '' => sprintf('"%s" left out', $edit[0]),
            default => sprintf('"%s" became "%s"', ...$edit),
        }, (new CauseCatalogue)->letters($source, $target));

        return $sentence.($letters === [] ? '' : ': '.implode(', ', $letters));
    }
}
