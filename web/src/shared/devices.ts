import { queryOptions } from "@tanstack/react-query";
import { call, client } from "../api/client";

export const devicesQuery = queryOptions({
  queryKey: ["devices"],
  queryFn: () => call(client.GET("/api/devices")),
});

export const showCode = () => call(client.POST("/api/devices/code", { body: {} }));

export const pair = (code: string, name: string) =>
  call(client.POST("/api/devices/pair", { body: { code, name } }));

export const nameDevice = (id: string, name: string) =>
  call(client.POST("/api/devices/{id}/name", { params: { path: { id } }, body: { name } }));

export const dropDevice = (id: string) =>
  call(client.DELETE("/api/devices/{id}", { params: { path: { id } }, body: {} }));
