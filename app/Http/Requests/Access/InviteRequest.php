<?php

declare(strict_types=1);

namespace App\Http\Requests\Access;

use App\Models\Migration;
use App\Models\Role;
use Illuminate\Foundation\Http\FormRequest;
use Illuminate\Validation\Rule;

final class InviteRequest extends FormRequest
{
    /** @return array<string, list<mixed>> */
    public function rules(): array
    {
        return [
            'name' => ['required', 'string', 'max:100'],
            'email' => ['required', 'email', 'max:254'],
            'migration' => ['present', 'nullable', 'integer', 'exists:migrations,id'],
            'role' => ['present', 'nullable', 'required_with:migration', Rule::enum(Role::class)],
            'isAdministrator' => ['required', 'boolean'],
        ];
    }

    public function name(): string
    {
        return $this->string('name')->trim()->toString();
    }

    public function email(): string
    {
        return $this->string('email')->trim()->toString();
    }

    public function migration(): ?Migration
    {
        return $this->input('migration') === null ? null : Migration::query()->findOrFail($this->integer('migration'));
    }

    public function role(): ?Role
    {
        return $this->enum('role', Role::class);
    }

    public function isAdministrator(): bool
    {
        return $this->boolean('isAdministrator');
    }
}
