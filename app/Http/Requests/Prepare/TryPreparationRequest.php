<?php

declare(strict_types=1);

namespace App\Http\Requests\Prepare;

use Illuminate\Foundation\Http\FormRequest;
use NineTally\Core\Plan\CanonicalJson;
use NineTally\Core\Plan\Plan;
use NineTally\Core\Plan\SideRules;
use NineTally\Core\Row\Side;

/** Steps that are tried; the published schema of plans is held against them. */
final class TryPreparationRequest extends FormRequest
{
    /** @return array<string, list<string>> */
    public function rules(): array
    {
        return ['side' => ['required', 'in:source,target'], 'preparation' => ['present', 'array', 'max:200'], 'chosen' => ['nullable', 'string']];
    }

    public function side(): Side
    {
        return Side::from($this->string('side')->toString());
    }

    public function chosen(): ?string
    {
        return $this->filled('chosen') ? $this->string('chosen')->toString() : null;
    }

    /** @throws \NineTally\Core\Plan\UnusablePlan */
    public function sideRules(): SideRules
    {
        $sent = json_decode($this->getContent(), true, 64);
        $sent = is_array($sent) ? $sent : [];
        $side = $this->side();
        // What is empty is not there: an empty map cannot be told from an empty list.
        $said = static fn(mixed $part): array => is_array($part) ? array_filter($part, static fn(mixed $value): bool => $value !== []) : [];
        $rules = $said(['preparation' => $sent['preparation'] ?? []] + (is_array($sent['reads'] ?? null) ? $sent['reads'] : []));
        $plan = $said(['sides' => $rules === [] ? [] : [$side->value => $rules], 'references' => $said($sent['references'] ?? [])]);

        return Plan::fromJson(CanonicalJson::of(['formatVersion' => Plan::FORMAT_VERSION, 'key' => [['source' => '?', 'target' => '?']], 'columnPairs' => [], ...$plan]))->side($side);
    }
}
