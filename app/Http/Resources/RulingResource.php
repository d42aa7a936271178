<?php

declare(strict_types=1);

namespace App\Http\Resources;

use App\Models\Ruling;
use App\Models\RulingScope;
use App\Queries\Review\Mask;
use Illuminate\Http\Request;
use Illuminate\Http\Resources\Json\JsonResource;

/** @property Ruling $resource */
final class RulingResource extends JsonResource
{
    public static $wrap = null;

    private bool $hidesValues = false;

    /** Values that an act names are those of cells. */
    public function masked(Mask $mask): self
    {
        $this->hidesValues = $mask->hidesAnything();

        return $this;
    }

    /** @return array<string, mixed> */
    public function toArray(Request $request): array
    {
        $act = $this->resource;

        return [
            'id' => $act->id,
            'scope' => $act->scope->value,
            'target' => match ($act->scope->value) {
                'pattern' => (string) $act->pattern_number,
                'class' => (string) $act->row_class,
                'undo' => (string) $act->undoes_id,
                'selection', 'filter' => '',
                default => (string) $act->sequence,
            },
            'filter' => $act->scope === RulingScope::Filter ? (object) $this->terms($act->filter ?? []) : null,
            'decision' => $act->decision?->value,
            'reason' => $act->reason,
            'ticket' => $act->ticket,
            'asked' => $act->asked?->name,
            'holdsUpTo' => $act->holds_up_to,
            'holdsFor' => $this->hidesValues && $act->holds_for !== null ? array_map(static fn(array $pair): array => ['source' => Mask::VALUE, 'target' => Mask::VALUE], $act->holds_for) : $act->holds_for,
            'findings' => $act->findings,
            'person' => $act->user->name,
            'at' => $act->created_at->toIso8601ZuluString(),
        ];
    }

    /**
     * @param  array<string, mixed>  $terms
     * @return array<string, mixed>
     */
    private function terms(array $terms): array
    {
        return $this->hidesValues ? array_intersect_key(['source' => Mask::VALUE, 'target' => Mask::VALUE, 'text' => Mask::VALUE], $terms) + $terms : $terms;
    }
}
